# frozen_string_literal: true

# Gorvant's core, in the order in which its rooms may lean on each other: a room uses those above it, never one below.
# Pure Ruby: no clock, no unseeded randomness, no database, no HTTP, no HTML.
require_relative "gorvant/value"
require_relative "gorvant/error"

# catalogue: what varies without new physics, read once from core/data
require_relative "gorvant/catalogue/catalogue"

# findings: what a rule reports
require_relative "gorvant/findings/finding"
require_relative "gorvant/findings/rule"

# circuit: nodes, branches, solver, relay settling, meter, path tracing. Knows contact states, not calls.
require_relative "gorvant/circuit/errors"
require_relative "gorvant/circuit/kind"
require_relative "gorvant/circuit/kinds/wire"
require_relative "gorvant/circuit/kinds/switches"
require_relative "gorvant/circuit/kinds/loads"
require_relative "gorvant/circuit/kinds/sources"
require_relative "gorvant/circuit/netlist"
require_relative "gorvant/circuit/islands"
require_relative "gorvant/circuit/plan"
require_relative "gorvant/circuit/straight_line"
require_relative "gorvant/circuit/section"
require_relative "gorvant/circuit/solution"
require_relative "gorvant/circuit/settling"
require_relative "gorvant/circuit/ghosts"
require_relative "gorvant/circuit/tolerance"
require_relative "gorvant/circuit/meter"
require_relative "gorvant/circuit/ohmmeter"
require_relative "gorvant/circuit/agreement"
require_relative "gorvant/circuit/paths"
require_relative "gorvant/circuit/loops"
require_relative "gorvant/circuit/reasons"
require_relative "gorvant/circuit/rules/fuse_blown"
require_relative "gorvant/circuit/rules/transformer_overloaded"
require_relative "gorvant/circuit/rules/coil_near_pull_in"
require_relative "gorvant/circuit/rules/common_broken"
require_relative "gorvant/circuit/rules/relay_chatter"

# rig: what is fitted, and the circuit that follows from it
require_relative "gorvant/rig/errors"
require_relative "gorvant/rig/fact"
require_relative "gorvant/rig/terminals"
require_relative "gorvant/rig/rig"
require_relative "gorvant/rig/condition"
require_relative "gorvant/rig/outputs"
require_relative "gorvant/rig/naming"
require_relative "gorvant/rig/composer"
require_relative "gorvant/rig/comparison"
require_relative "gorvant/rig/assembly"
require_relative "gorvant/rig/notation"
require_relative "gorvant/rig/rung_comparison"
require_relative "gorvant/rig/rules/one_pole"
require_relative "gorvant/rig/rules/lockout_defeated"
require_relative "gorvant/rig/rules/no_heat_in_defrost"
require_relative "gorvant/rig/rules/board_not_fed"

# faults: how each kind of fault changes a netlist
require_relative "gorvant/faults/fault"
require_relative "gorvant/faults/kinds"
require_relative "gorvant/faults/library"
require_relative "gorvant/faults/signatures"

# sequence: what decides over time, each by itself
require_relative "gorvant/sequence/errors"
require_relative "gorvant/sequence/schedule"
require_relative "gorvant/sequence/quantity"
require_relative "gorvant/sequence/controller"
require_relative "gorvant/sequence/delayed_contact"
require_relative "gorvant/sequence/temperature_switch"
require_relative "gorvant/sequence/valve"
require_relative "gorvant/sequence/compressor_guard"

# thermostat and defrost: the two controllers with most to decide
require_relative "gorvant/thermostat/staging"
require_relative "gorvant/thermostat/thermostat_controller"
require_relative "gorvant/defrost/defrost_board"

# runs: rig and condition together, at one instant and over time
require_relative "gorvant/runs/trace"
require_relative "gorvant/runs/what_if"
require_relative "gorvant/runs/way"
require_relative "gorvant/runs/script"
require_relative "gorvant/runs/plant"
require_relative "gorvant/runs/timeline"
require_relative "gorvant/runs/run"
require_relative "gorvant/runs/chain"
require_relative "gorvant/runs/refrigerant"
require_relative "gorvant/runs/window"

# wiring: as found against the rig
require_relative "gorvant/wiring/errors"
require_relative "gorvant/wiring/as_found"
require_relative "gorvant/wiring/target"
require_relative "gorvant/wiring/trials"
require_relative "gorvant/wiring/effects"
require_relative "gorvant/wiring/differences"
require_relative "gorvant/wiring/named"
require_relative "gorvant/wiring/correction"
require_relative "gorvant/wiring/wiring_check"
require_relative "gorvant/wiring/staging_run"
require_relative "gorvant/wiring/bench_list"
require_relative "gorvant/wiring/settings_check"

# drawing: Scenes that page, export and screen reader render alike
require_relative "gorvant/drawing/text_size"
require_relative "gorvant/drawing/geometry"
require_relative "gorvant/drawing/scene"
require_relative "gorvant/drawing/symbols"
require_relative "gorvant/drawing/pen"
require_relative "gorvant/drawing/loop_view"
require_relative "gorvant/drawing/loop_string"
require_relative "gorvant/drawing/ladder"
require_relative "gorvant/drawing/connection_view"
require_relative "gorvant/drawing/focus_view"
require_relative "gorvant/drawing/legend"
require_relative "gorvant/drawing/views"

# formats: one open format a file
require_relative "gorvant/formats/rig_json"
require_relative "gorvant/formats/spice"
require_relative "gorvant/formats/svg"
require_relative "gorvant/formats/spreadsheet"
require_relative "gorvant/formats/timeline_csv"
require_relative "gorvant/formats/vcd"
require_relative "gorvant/formats/course_csv"
require_relative "gorvant/formats/landings_csv"

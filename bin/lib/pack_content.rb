# frozen_string_literal: true

# What the engine is packed of, as JSON, said by a Ruby without gems: what needs one could not run on a device.
require "base64"
require "json"

root = File.expand_path("../..", __dir__)
require_relative "../../core/lib/gorvant"
require_relative "../../server/answers/device/device"

catalogue = Gorvant::Catalogue
tables = catalogue.singleton_methods(false).reject { |name| name == :digest || !catalogue.method(name).arity.zero? }
tables.each { |name| catalogue.public_send(name) }
# All of the pack is loaded in order, and its tables are no YAML any more: lines keep their numbers.
source = ->(path) { File.read(path, encoding: "UTF-8").gsub(/^require(_relative .*| "yaml")$/, "") }
files = $LOADED_FEATURES.select { |path| path.start_with?("#{root}/core/", "#{root}/server/") }
puts JSON.generate(
       "files" => files.map { |path| [path.delete_prefix("#{root}/"), source.call(path)] },
       "data" => Base64.strict_encode64(Marshal.dump(catalogue.instance_variable_get(:@tables))),
       "style" => File.read(File.join(root, "core/data/print_style.css"), encoding: "UTF-8")
     )

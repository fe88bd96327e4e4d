# frozen_string_literal: true

# What a demanding draughtsman would not sign, found by geometry: [sentence].
class Draughtsman
  SMALLEST_TYPE = 12
  TOUCH = 44
  HAIR = 0.6 # pixels: less than the eye sees

  def initialize(scene)
    @scene = scene
    @geometry = Gorvant::Geometry
    @boxes = (labels + stations).to_h { |thing| [thing, thing.box] }.compare_by_identity
    @lines = scene.links.to_h { |link| [link, link.boxes] }.compare_by_identity
    @cores =
      scene
        .links
        .to_h { |link| [link, link.points.each_cons(2).map { |from, to| @geometry.stretch(from, to, 2.0) }] }
        .compare_by_identity
    @stretches = scene.links.to_h { |link| [link, link.points.each_cons(2).to_a] }.compare_by_identity
  end

  def complaints
    small_type + off_sheet + fingers + names + symbols + lines
  end

  private

  def overlap?(one, two) = @geometry.overlap?(shrunk(one), two)
  def shrunk(box) = [box[0] + HAIR, box[1] + HAIR, box[2] - HAIR, box[3] - HAIR]
  def stations = @scene.stations
  def labels = @scene.labels
  def named(label) = "'#{label.text}' (#{label.role}#{" of #{label.station}" if label.station})"

  def small_type =
    labels.select { |label| label.size < SMALLEST_TYPE }.map { |label| "#{named(label)} is set in #{label.size} px" }

  def off_sheet
    things =
      labels.map { |label| [named(label), @boxes[label]] } + stations.map { |station| [station.id, station.hit_box] }
    outside =
      things.reject { |_name, box| box[0] >= 0 && box[1] >= 0 && box[2] <= @scene.width && box[3] <= @scene.height }
    outside.map { |name, box| "#{name} leaves the sheet: #{box.map(&:round)}" }
  end

  def fingers
    small =
      stations
        .reject { |station| station.hit.all? { |side| side >= TOUCH } }
        .map { |station| "#{station.id} is too small to touch" }
    small +
      stations
        .combination(2)
        .filter_map { |one, two| "#{one.id} and #{two.id} share a target" if overlap?(one.hit_box, two.hit_box) }
  end

  def names
    pairs =
      labels
        .combination(2)
        .filter_map { |one, two| "#{named(one)} lies on #{named(two)}" if overlap?(@boxes[one], @boxes[two]) }
    pairs + labels.flat_map { |label| on_symbols(label) + on_lines(label) }
  end

  def on_symbols(label)
    stations.filter_map do |station|
      next unless overlap?(@boxes[label], @boxes[station])

      unless label.station == station.id && inside?(@boxes[label], @boxes[station])
        "#{named(label)} lies on #{station.id}"
      end
    end
  end

  def inside?(inner, outer) =
    inner[0] >= outer[0] && inner[2] <= outer[2] && inner[1] >= outer[1] && inner[3] <= outer[3]

  def on_lines(label)
    @scene.links.filter_map do |link|
      "#{named(label)} lies on line #{link.id}" if @lines[link].any? { |box| overlap?(@boxes[label], box) }
    end
  end

  def symbols
    stations
      .combination(2)
      .filter_map { |one, two| "#{one.id} lies on #{two.id}" if overlap?(@boxes[one], @boxes[two]) }
  end

  def lines = lines_over_symbols + lines_over_lines

  # A line may end at a symbol, or pass through a point that it belongs to.
  def lines_over_symbols
    @scene.links.flat_map do |link|
      stations.filter_map do |station|
        next if station.kind == "terminal" && link.nodes.intersect?(station.nodes)

        "line #{link.id} runs over #{station.id}" if @cores[link].any? { |box| overlap?(inner(station), box) }
      end
    end
  end

  def inner(station) = @boxes[station].zip([2, 2, -2, -2]).map(&:sum)

  # Two lines of different points may cross, never run along each other.
  def lines_over_lines
    @scene
      .links
      .combination(2)
      .filter_map do |one, two|
        next if one.nodes.intersect?(two.nodes)

        pair = @stretches[one].product(@stretches[two]).find { |first, second| along?(first, second) }
        "lines #{one.id} and #{two.id} run along each other at #{pair.first.inspect}" if pair
      end
  end

  def along?(first, second)
    axis = [0, 1].find { |one| [*first, *second].all? { |point| (point[one] - first[0][one]).abs < 3 } } or return false
    other = 1 - axis
    spans = [first, second].map { |line| line.map { |point| point[other] }.minmax }
    [spans[0][1], spans[1][1]].min - [spans[0][0], spans[1][0]].max > 1
  end
end

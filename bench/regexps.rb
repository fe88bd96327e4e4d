# frozen_string_literal: true

# Every regular expression of core and server against texts that make one backtrack: ruby bench/regexps.rb. Long runs of
# one or two characters, ended by what nothing takes, of two lengths; one whose time grows faster than that is told.
require "bundler/setup"
require "rubocop"

ROOT = File.expand_path("..", __dir__)
SHORT = 4_000
TIMES = 4
MOST_SECONDS = 0.05
# What they are held against is short before they come: they may.
BOUNDED = { "core/lib/gorvant/rig/notation/reader.rb" => "lines of at most 600 characters" }.freeze
ALPHABET = ["a", "0", " ", ",", ".", "-", ":", "/", "\"", "é", "A", "=", "\n", "(", "_"].freeze
END_OF_IT = "\u0001>"
RUNS = (ALPHABET + ALPHABET.permutation(2).map(&:join)).freeze

# [[place, Regexp]] of the literals in a file that hold no text worked out at run time.
def literals(path)
  source = RuboCop::ProcessedSource.new(File.read(path, encoding: "UTF-8"), 3.1, path)
  source
    .ast
    &.each_node(:regexp)
    .to_a
    .filter_map do |node|
      next if node.each_child_node(:begin).any?

      ["#{path.delete_prefix("#{ROOT}/")}:#{node.loc.line}", eval(node.source)] # rubocop:disable Security/Eval -- our own files
    rescue SyntaxError, RegexpError
      nil
    end
end

def seconds(pattern, text)
  began = Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID)
  pattern.match?(text)
  Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID) - began
rescue Encoding::CompatibilityError
  0
end

paths = Dir[File.join(ROOT, "{core/lib,server}/**/*.rb")].reject { |path| BOUNDED.key?(path.delete_prefix("#{ROOT}/")) }
patterns = paths.flat_map { |path| literals(path) }
open_ended = patterns.select { |_place, pattern| pattern.source.match?(/[*+]|,\}/) }
bad =
  open_ended.filter_map do |place, pattern|
    worst =
      RUNS
        .filter_map do |run|
          ["", "x", "1"].filter_map do |head|
              short, long = [SHORT, SHORT * TIMES].map { |size| "#{head}#{run * (size / run.size)}#{END_OF_IT}" }
              next if seconds(pattern, long) < MOST_SECONDS

              long_took, short_took = [long, short].map { |text| Array.new(3) { seconds(pattern, text) }.min }
              [long_took, short_took, run] if long_took > MOST_SECONDS && long_took > short_took * TIMES * 2
            end
            .max
        end
        .max
    worst && [place, pattern, *worst]
  end
bad.each do |place, pattern, long, short, run|
  puts "#{place} #{pattern.inspect[0, 80]} #{run.inspect}: #{long.round(2)} s, #{short.round(3)} s"
end
puts "#{patterns.size} regular expressions, #{open_ended.size} open-ended, #{bad.size} that backtrack"
exit(bad.empty?)

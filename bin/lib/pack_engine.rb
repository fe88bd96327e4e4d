# frozen_string_literal: true

require "digest"
require "fileutils"
require "json"
require "open3"
require "rbconfig"
require "zlib"

# Packs what answers on a device without signal: the core, its data, and the server's answers, in the order in which
# they are loaded, as one file; beside it the Ruby that runs them there. Both are named by what they hold.
module PackEngine
  ROOT = File.expand_path("../..", __dir__)
  RUBY = File.join(ROOT, "node_modules/@ruby/3.4-wasm-wasi/dist/ruby+stdlib.wasm")
  CONTENT = File.join(__dir__, "pack_content.rb")
  CLEAN = %w[RUBYOPT RUBYLIB BUNDLE_GEMFILE BUNDLER_SETUP].to_h { |name| [name, nil] }.freeze

  class << self
    # Writes into a folder: engine.json names the files. Nothing that is there already is written again.
    def write(folder)
      FileUtils.mkdir_p(folder)
      pack = kept(folder, "core", JSON.generate(content))
      ruby = kept(folder, "ruby", File.binread(RUBY))
      whole = { "engine" => pack[/-(\h+)\./, 1], "pack" => pack, "ruby" => ruby, "bytes" => bytes(folder, pack, ruby) }
      File.write(File.join(folder, "engine.json"), JSON.generate(whole))
      whole
    end

    # { "files" => [[path, source]], "data" => the tables, "style" => text }. Tables go marshalled: to read YAML takes
    # longer there than all the rest.
    def content
      out, problem, status = Open3.capture3(CLEAN, RbConfig.ruby, "--disable-gems", CONTENT)
      raise "the engine could not be packed: #{problem}" unless status.success?

      JSON.parse(out)
    end

    private

    def kept(folder, name, text)
      path = "#{name}-#{Digest::SHA256.hexdigest(text)[0, 16]}.gz"
      Dir[File.join(folder, "#{name}-*.gz")].each { |old| File.delete(old) unless File.basename(old) == path }
      whole = File.join(folder, path)
      unless File.exist?(whole)
        packed = Zlib.gzip(text, level: name == "ruby" ? Zlib::DEFAULT_COMPRESSION : Zlib::BEST_COMPRESSION)
        File.binwrite("#{whole}.part", packed)
        File.rename("#{whole}.part", whole)
      end
      path
    end

    def bytes(folder, *files) = files.sum { |file| File.size(File.join(folder, file)) }
  end
end

PackEngine.write(ARGV.fetch(0)) if $PROGRAM_NAME == __FILE__

# frozen_string_literal: true

require "base64"
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
  ENTRY = "server/answers/device/device.rb"

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

    # { "files" => [[path, source]], "data" => the tables, "texts" => { path => text } }. Tables go marshalled: to read
    # YAML takes longer there than all the rest.
    def content
      script = <<~RUBY
        require "#{ROOT}/core/lib/gorvant"
        require "#{ROOT}/#{ENTRY}"
        Gorvant::Catalogue.singleton_methods(false).each do |name|
          Gorvant::Catalogue.public_send(name) if Gorvant::Catalogue.method(name).arity.zero? && name != :digest
        end
        tables = Gorvant::Catalogue.instance_variable_get(:@tables)
        files = $LOADED_FEATURES.select { |path| path.start_with?("#{ROOT}/") }
        $stdout.binmode.write(Marshal.dump([files, tables]))
      RUBY
      # Without gems: what needs one could not run there.
      out, problem, status = Open3.capture3(clean, RbConfig.ruby, "--disable-gems", "-e", script, binmode: true)
      raise "the engine could not be packed: #{problem}" unless status.success?

      files, tables = Marshal.load(out) # rubocop:disable Security/MarshalLoad -- our own, written a line above
      {
        "files" => files.map { |path| [path.delete_prefix("#{ROOT}/"), source(path)] },
        "data" => Base64.strict_encode64(Marshal.dump(tables)),
        "style" => File.read(File.join(ROOT, "core/data/print_style.css"), encoding: "UTF-8")
      }
    end

    private

    # All of the pack is loaded in order, and its tables are no YAML any more: lines keep their numbers.
    def source(path) = File.read(path, encoding: "UTF-8").gsub(/^require(_relative .*| "yaml")$/, "")

    def clean = %w[RUBYOPT RUBYLIB BUNDLE_GEMFILE BUNDLER_SETUP].to_h { |name| [name, nil] }

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

# frozen_string_literal: true

# Loads the packed engine from /pack.json into a Ruby that stands in a browser: each file as it is, in the order in
# which it was packed, with the catalogue's tables in the place of its YAML.
require "base64"
require "json"

pack = JSON.parse(File.read("/pack.json", encoding: "UTF-8"))
pack
  .fetch("files")
  .each do |path, source|
    eval(source, TOPLEVEL_BINDING, "/#{path}") # rubocop:disable Security/Eval -- the application's own files
    next unless path.end_with?("catalogue/catalogue.rb")

    data = Base64.strict_decode64(pack.fetch("data"))
    tables = Marshal.load(data, freeze: true) # rubocop:disable Security/MarshalLoad
    Gorvant::Catalogue.instance_variable_set(:@tables, tables)
    Gorvant::Catalogue.instance_variable_set(:@print_style, pack.fetch("style").freeze)
  end
DEVICE = Gorvant::Server::Device.new

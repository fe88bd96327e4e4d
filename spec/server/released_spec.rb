# frozen_string_literal: true

require "open3"
require "tmpdir"
require_relative "../support/core"
require_relative "../support/released"

# What goes out to a server that others run: tables that the program of before still reads, units and surroundings that
# name what is there.
RSpec.describe "A release" do
  root = File.expand_path("../..", __dir__)
  migrations = Dir[File.join(root, "db/migrations/*.rb")]

  describe "changes tables so that the program of before can go on" do
    released = migrations.map { |path| ReleasedMigration.new(path) }
    released
      .select { |one| one.version >= ReleasedMigration::SINCE }
      .each { |one| it("in #{one.version}") { expect(one.refused(migrations)).to be_nil } }

    # What a migration says, and what is said of it.
    {
      "create_table(:new_ones) { uuid :id, primary_key: true; text :name, null: false }" => nil,
      "add_column :visits, :more, :text" => nil,
      'add_column :visits, :more, :text, null: false, default: ""' => nil,
      "drop_index :visits, :unit_id" => nil,
      "add_column :visits, :more, :text, null: false" => /mandatory column without a value/,
      "drop_column :visits, :complaint" => /drops a column; name the migration/,
      "drop_table :readings" => /drops a table/,
      "rename_column :visits, :complaint, :words" => /renames/,
      "rename_table :visits, :calls" => /renames/,
      "alter_table(:visits) { set_column_not_null :complaint }" => /makes a column mandatory/,
      "set_column_type :visits, :complaint, :varchar" => /of another type/,
      'run "ALTER TABLE visits DROP COLUMN complaint"' => /drops a column/
    }.each do |says, expected|
      it "#{expected ? "refuses" : "takes"} #{says}" do
        expect(verdict(says)).to expected ? match(expected) : be_nil
      end
    end

    it "takes one that drops where it names what came before, and only where that is there and earlier" do
      drops = "drop_column :visits, :complaint"
      earlier = File.basename(migrations.min, ".rb")
      expect(verdict(drops, "# Contracts #{earlier}.")).to be_nil
      expect(verdict(drops, "# Contracts 20261124040000_another.")).to include("is not there")
      expect(verdict(drops, "# Contracts 20991231000000_later.", also: "20991231000000_later.rb")).to include(
        "before it"
      )
    end

    # What is said of a migration of 2098 that says this.
    def verdict(says, head = "", also: nil)
      Dir.mktmpdir do |folder|
        path = File.join(folder, "20981231000000_tried.rb")
        File.write(path, "#{head}\nSequel.migration { up { #{says} }; down {} }\n")
        known = Dir[File.join(File.expand_path("../..", __dir__), "db/migrations/*.rb")]
        ReleasedMigration.new(path).refused([*known, path, *also])
      end
    end
  end

  describe "ships units for a crew's server" do
    units = Dir[File.join(root, "config/systemd/*.{service,timer}")]
    sample = File.read(File.join(root, "config/systemd/environment.sample"))

    it "that start what is there" do
      commands =
        units.flat_map { |path| File.read(path).scan(%r{^Exec(?:Start|StartPre)=/opt/gorvant/(\S+)}) }.flatten.uniq
      expect(commands).to include("bin/serve", "bin/backup", "bin/restore-drill")
      expect(commands.reject { |name| File.executable?(File.join(root, name)) }).to eq([])
      expect(units.map { |path| File.basename(path) }).to include("gorvant-backup.timer", "gorvant-worker.service")
    end

    it "with surroundings that something reads, each of them, and a secret of its own at once" do
      names = sample.scan(/^([A-Z_]+)=/).flatten
      code =
        Dir[File.join(root, "{server,config,bin}/**/*")].select { |path| File.file?(path) && !path.end_with?("sample") }
      text = code.map { |path| File.read(path, encoding: "BINARY") }.join
      roles = /GORVANT_(WEB|DOOR|WORKER)_URL/
      unread = names.grep_v(roles).reject { |name| text.include?(name) }
      expect(unread).to eq([])
      Dir.mktmpdir do |folder|
        file = File.join(folder, "environment")
        made = -> { Open3.capture2e("bin/prepare", "--environment", file, chdir: root) }
        expect(made.call.last.success?).to be(true)
        expect([File.stat(file).mode & 0o777, File.read(file)[/^GORVANT_SECRET=(\h+)$/, 1].size]).to eq([0o600, 128])
        written = File.read(file)
        expect(made.call).to match([/is there already/, have_attributes(success?: false)])
        expect(File.read(file)).to eq(written)
      end
    end
  end
end

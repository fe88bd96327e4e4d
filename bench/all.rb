# frozen_string_literal: true

# Every benchmark, each in a process of its own.
Dir[File.join(__dir__, "*.rb")].reject { |path| path == File.expand_path(__FILE__) }.each { |path| system("ruby", path) || exit(1) }

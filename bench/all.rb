# frozen_string_literal: true

# Every benchmark, each in a process of its own.
Dir[File.join(__dir__, "*.rb")]
  .reject { |path| %w[all.rb rigs.rb questions.rb served.rb clients.rb].include?(File.basename(path)) }
  .each { |path| system("ruby", path) || exit(1) }

# frozen_string_literal: true

# Asks for a name and a password, in a terminal or a line each on standard input, and gives them to the server's owner.
require "io/console"
require_relative "../../server/boot"

def asked(words, hidden: false)
  return $stdin.gets.to_s.chomp unless $stdin.tty?

  $stderr.print("#{words}: ")
  (hidden ? $stdin.noecho(&:gets) : $stdin.gets).to_s.chomp.tap { warn("") if hidden }
end

module Gorvant
  # The command.
  module Server
    door = Database.connect(as: :door)
    people = People.new(door)
    owner = people.member(Viewer.local_owner(door).crew_id, Viewer.local_owner(door).user_id)
    given = {
      "sign_in_name" => asked("Name to sign in by#{owner[:sign_in_name] && " (now #{owner[:sign_in_name]})"}"),
      "password" => asked("New password", hidden: true)
    }
    given["sign_in_name"] = owner[:sign_in_name] if given["sign_in_name"].empty?
    begin
      input = PasswordRequest.parse(given)
      abort("error: sign_in_name is missing") unless input[:sign_in_name]
      if $stdin.tty? && asked("Once more", hidden: true) != input[:password]
        abort("error: the two passwords are not the same")
      end

      door.transaction do
        people.without_others_than_password(owner[:id])
        people.sign_out(owner[:id])
        people.change(
          owner[:id],
          sign_in_name: input[:sign_in_name],
          password_hash: Door.password_hash(input[:password])
        )
      end
    rescue Invalid => e
      abort("error: #{e.problems.map { |one| "#{one["field"].delete_prefix("/")} #{one["problem"]}" }.join("; ")}")
    rescue Gorvant::Error => e
      abort("error: #{e.message}")
    end
    puts "#{owner[:name]} signs in as #{input[:sign_in_name]} from now on."
  end
end

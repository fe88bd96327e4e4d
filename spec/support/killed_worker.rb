# frozen_string_literal: true

# A worker that is killed once, when it has the first look of signatures and not the rest; whoever works next takes the
# task over.
module KilledWorker
  def self.after_first_look(example, worker, db)
    lives = [true]
    killed =
      Class.new(Gorvant::Server::Signatures) do
        define_method(:step) { |index| index > total / 2 && lives.pop ? raise(Interrupt) : super(index) }
      end
    killed.const_set(:KIND, Gorvant::Server::Signatures::KIND)
    example.stub_const("Gorvant::Server::Signatures", killed)
    example.expect { worker.run_one }.to example.raise_error(Interrupt)
    db[:tasks].update(beat_at: Time.now - 60)
  end
end

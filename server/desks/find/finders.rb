# frozen_string_literal: true

module Gorvant
  module Server
    # Finders of visits, from what their desks hold and their standing readings. What was read after the repair is of
    # another unit than the one that was looked into, and is left out.
    class Finders
      def initialize(computed, readings)
        @computed = computed
        @readings = readings
      end

      def situation(row)
        found, outdoor = row[:desks].as_found, row[:outdoor_degrees_f]
        Warm.situation([row[:digest], found, outdoor]) do
          rig = Warm.rig(row)
          Desks::Find.situation(rig, AsFound.parse(found, rig), outdoor)
        end
      end

      # The signatures of the unit as this visit has it, laid out; nil while they are not there.
      def library(row)
        situation = situation(row)
        key = Signatures.key(row[:digest], situation)
        Warm.library([key, row[:outdoor_degrees_f], situation.told]) do
          kept = @computed.get(key)
          kept && Diagnosis::Library.new(situation, JSON.parse(kept))
        end
      end

      # What is there of them for the complaint before the rest is; nil where nothing is yet.
      def first_library(row)
        situation = situation(row)
        look = Diagnosis::FirstLook.of(situation, row[:symptoms].to_a) or return nil
        key = Signatures.first_key(row[:digest], situation, look)
        Warm.library([key, row[:outdoor_degrees_f], situation.told]) do
          kept = @computed.get(key)
          kept && Diagnosis::Library.new(situation, JSON.parse(kept), look)
        end
      end

      # asked: what a FindRequest gives.
      def finder(row, library, asked = {})
        kept = row[:desks].kept
        reads = @readings.of_standing(row[:id]).map { |reading| VisitRecords.read(reading) }
        Desks::Find.finder(
          library,
          symptoms: row[:symptoms].to_a,
          reads: Desks::CloseOut.before_repair(reads, kept),
          told: Desks::Find.told(VisitRecords.of(row, kept: kept)),
          past: Diagnosis::Past.read(row[:carried].to_h["causes"]),
          **asked.slice(:stands, :call, :mode, :skip, :further)
        )
      end

      # What Find answers as it stands, in words; nil while its signatures are not there.
      def answer(row)
        library = library(row)
        library && Desks::Find::Words.new(finder(row, library)).to_h
      end
    end
  end
end

# frozen_string_literal: true

module Gorvant
  module Server
    # What was thrown away, and can be had back for thirty days.
    class BinResource < Resource
      get "/api/bin" do
        json(binned: bin.all.map { |row| Present.binned(row) })
      end

      Bin::KINDS.each_key { |kind| post("/api/#{kind}/:id/bin") { json(title: bin.put(kind, params[:id])) } }

      post "/api/bin/:kind/:id/restoration" do
        json(title: bin.take_out(params[:kind], params[:id]))
      end

      post "/api/bin/:kind/:id/deletion" do
        json(title: bin.delete(params[:kind], params[:id]))
      end

      private

      def bin = Bin.new(db, viewer)
    end
  end
end

# frozen_string_literal: true

module Gorvant
  module Server
    # The Larkmere demo data: there or not, one action each way.
    class DemoResource < Resource
      get "/api/demo" do
        json(present: Demo.new(db, viewer).present?)
      end

      post "/api/demo/restoration" do
        Demo.new(db, viewer).load
        json(present: true)
      end

      post "/api/demo/removal" do
        Demo.new(db, viewer).remove
        json(present: Demo.new(db, viewer).present?)
      end
    end
  end
end

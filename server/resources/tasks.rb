# frozen_string_literal: true

module Gorvant
  module Server
    # Long work: how far it is, and an end to it.
    class TasksResource < Resource
      get "/api/tasks/:id" do
        json Present.task(tasks.find(params[:id]))
      end

      post "/api/tasks/:id/cancellation" do
        json Present.task(tasks.cancel(params[:id]))
      end
    end
  end
end

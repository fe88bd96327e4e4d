# frozen_string_literal: true

module Gorvant
  module Server
    # Courses: drills in an order, handed out; what they came to; as files.
    class CoursesResource < Resource
      get "/api/practice/courses" do
        json(courses: courses.all.map { |row| present(row) })
      end

      post "/api/practice/courses" do
        input = DrillCourseRequest.parse(body_json)
        known = drills.of(input[:drill_ids])
        missing = input[:drill_ids].find { |id| !known.key?(id) }
        raise Refused.new(field: "/drill_ids", problem: "has no drill '#{missing}'") if missing

        row, first_time =
          courses.make(
            input[:id],
            body_json,
            name: input[:name].strip,
            drill_ids: input[:drill_ids],
            learner_ids: learners(input[:learner_ids])
          )
        created(present(row), first_time)
      end

      get "/api/practice/courses/:id" do
        json present(courses.find(params[:id]))
      end

      post "/api/practice/courses/:id/removal" do
        courses.remove(params[:id])
        json(removed: params[:id])
      end

      # The course as a file; what is really so in it is sealed.
      post "/api/practice/courses/:id/file" do
        input = PassphraseRequest.parse(body_json)
        row = courses.own(params[:id])
        known = drills.of(row[:drill_ids].to_a)
        json DrillFile.dump(row[:name], row[:drill_ids].to_a.filter_map { |id| known[id] }, input[:passphrase])
      end

      # A file's drills, as a course of this crew.
      post "/api/practice/files" do
        input = DrillFileRequest.parse(body_json)
        title, read = DrillFile.load(deep_strings(input[:file]), input[:passphrase])
        row, first_time =
          db.transaction do
            ids = read.each_with_index.map { |drill, i| kept(input[:id], drill, i) }
            courses.make(input[:id], body_json, name: title, drill_ids: ids, learner_ids: [])
          end
        created(present(row), first_time)
      end

      private

      # Ids follow from the course's, so that a file that is sent again is taken in once.
      def kept(course_id, drill, number)
        id = Ids.of("#{course_id} drill #{number}")
        drills.keep(id, { "file" => course_id, "number" => number }, drill, nil, made_by: "file")
        id
      end

      def learners(given)
        known = names.keys
        stranger = given.to_a.find { |id| !known.include?(id) }
        raise Refused.new(field: "/learner_ids", problem: "has somebody who is not of this crew") if stranger

        given.to_a
      end

      # { user_id => name } of the crew.
      def names = @names ||= courses.crew_names

      def present(row)
        mine = viewer.role == "owner" || row[:created_by] == viewer.user_id
        tries = mine ? drill_tries.of_course(row[:id]) : nil
        Present.course(row, drills.of(row[:drill_ids].to_a), names, tries, mine)
      end
    end
  end
end

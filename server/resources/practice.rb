# frozen_string_literal: true

module Gorvant
  module Server
    # The practice bench: what a learner may do next, drills, and tries of one's own.
    class PracticeResource < Resource
      get "/api/practice" do
        progress = Present.progress(drill_tries.marks_by_subject, Time.now)
        json(
          subjects: progress,
          today: today(progress),
          open: drill_tries.mine("open", "judging").map { |row| Present.try_line(row) },
          done: drill_tries.mine("done").map { |row| Present.try_line(row) }
        )
      end

      # A drill of the kind asked for: one that is there and not met, a fresh one, or 202 and the task that draws it.
      post "/api/practice/drills" do
        input = DrillRequest.parse(body_json)
        row = rigs.find(input[:rig_id])
        return json(Present.drill(ask_drill(input, row)), 201) unless input[:form] == "find"

        there = drills.of([input[:id]])[input[:id]]
        there ||= drills.unmet(row[:id], input[:subject], input[:level]) unless input[:fresh]
        return json(Present.drill(there)) if there

        key = Computed.key(MakeDrill::KIND, input[:id])
        none_of_it if computed.get(key)
        json(Present.task(tasks.ask(MakeDrill::KIND, key, task_input(input, row))), 202)
      end

      get "/api/practice/drills/:id" do
        json Present.drill(drills.find(params[:id]))
      end

      # The panel's diagram of a drill's unit: as drawn, everything off. It is of the sound unit, whatever is hidden.
      post "/api/practice/drills/:id/drawing" do
        row = drills.find(params[:id])
        input = PanelDrawingRequest.parse(body_json)
        rig = drawn(row)
        json(
          computed.recall("panel", Formats::RigJson.dump(rig), input[:view]) do
            off = Condition.new(call: "off", supplies: Condition::SUPPLIES.to_h { |id| [id, false] })
            trace = Trace.new(rig, off)
            JSON.generate(ScenePresenter.new(Views.scene(input[:view], trace, {})).to_h)
          end
        )
      end

      post "/api/practice/tries" do
        input = TryRequest.parse(body_json)
        row = drills.find(input[:drill_id])
        courses.find(input[:course_id]) if input[:course_id]
        standing = row[:form] == "find" ? Practice::Bench.new(Drills.open(row)).start.to_h : nil
        try, first_time = drill_tries.begin_one(input[:id], body_json, row, standing, course_id: input[:course_id])
        created(shown(try, row), first_time)
      end

      get "/api/practice/tries/:id" do
        try = drill_tries.find(params[:id])
        json shown(try, drills.find(try[:drill_id]))
      end

      # One act at the bench, in its bench minutes.
      post "/api/practice/tries/:id/acts" do
        input = ActRequest.parse(body_json)
        try, row = open_try("find")
        json shown(drill_tries.take(try, input[:version], row, deep_strings(input[:act])), row)
      end

      # Where the page has the probes, for a meter that sends by itself.
      post "/api/practice/tries/:id/probes" do
        input = ProbesRequest.parse(body_json)
        try, = open_try("find")
        told = { "try_id" => try[:id], "user_id" => viewer.user_id, "probes" => input[:probes] }
        Events.new(db).add(viewer, "here", nil, told)
        json(told: true)
      end

      # What a learner says that it is; the judging is a task.
      post "/api/practice/tries/:id/decision" do
        input = DecisionRequest.parse(body_json)
        try, row = open_try("find")
        decision = input[:decision].map { |one| deep_strings(one) }
        db.transaction do
          try = drill_tries.decide(try, input[:version], decision, state: "judging")
          key = Computed.key(JudgeTry::KIND, try[:id])
          tasks.ask(JudgeTry::KIND, key, { "try_id" => try[:id], **who })
        end
        json(shown(try, row), 202)
      end

      # An answer to a question, judged at once.
      post "/api/practice/tries/:id/answers" do
        input = AnswerRequest.parse(body_json)
        try, row = open_try("predict", "trace", "panel", "timing")
        unless input[:number] == try[:log].to_a.size
          raise Refused.new(field: "/number", problem: "has to be #{try[:log].to_a.size}, the question that is open")
        end

        answer = deep_strings(input[:answer])
        judged = Practice::Quiz.judge(Drills.open(row), input[:number], answer)
        entry = { "number" => input[:number], "answer" => answer, **judged }
        json shown(drill_tries.add(try, input[:version], entry, **ended(try, row, judged)), row)
      end

      private

      # The rig that a drill's diagram is of; where one reads the panel, with all that may be fitted.
      def drawn(row)
        return Practice::Panel.new(Drills.open(row).rig).diagram(Drills.open(row).asks) if row[:form] == "panel"

        Formats::RigJson.read(row[:content].to_hash)
      end

      def ask_drill(input, row)
        drill =
          Practice::Quiz.drill(
            *input.values_at(:form, :subject, :level),
            SecureRandom.random_number(2**31),
            Warm.rig(row)
          )
        drills.keep(input[:id], body_json, drill, row).first
      end

      def none_of_it
        raise Refused.new(
                field: "/level",
                problem: "this rig has nothing of this subject and level that measuring leads to; take another of them"
              )
      end

      def who = { "crew_id" => viewer.crew_id, "user_id" => viewer.user_id }

      def task_input(input, row) =
        {
          "drill_id" => input[:id],
          "rig_id" => row[:id],
          **input.slice(:subject, :level).transform_keys(&:to_s),
          **who
        }

      # [row of the try, row of its drill] of one that is still open, and of these forms.
      def open_try(*forms)
        try = drill_tries.find(params[:id])
        row = drills.find(try[:drill_id])
        raise Refused.new(field: "/state", problem: "this drill is decided; begin another") unless try[:state] == "open"
        raise Refused.new(field: "/form", problem: "this is not for #{row[:form]}") unless forms.include?(row[:form])

        [try, row]
      end

      def ended(try, row, judged)
        shares = try[:log].to_a.map { |entry| entry["share"] } + [judged["share"]]
        return {} if shares.size < row[:questions]

        { state: "done", marks: Practice::Quiz.marks(shares), done_at: Time.now }
      end

      def shown(try, row)
        return Present.try(try, row, unit: unit(row)) if row[:form] == "find"

        number = try[:log].to_a.size
        ask = number < row[:questions] ? Practice::Quiz.shown(Drills.open(row), number).merge("number" => number) : nil
        Present.try(try, row, ask: ask)
      end

      def unit(row) = Practice::UnitPlaces.new(Formats::RigJson.read(row[:content].to_hash)).to_h

      # What to do today: what is due longest, else what is new.
      def today(progress)
        due = progress.select { |one| one[:due] }
        one = due.select { |subject| subject[:due_at] }.min_by { |subject| subject[:due_at] } || due.first or return nil
        forms = one[:forms]
        {
          subject: one[:id],
          title: one[:title],
          form: forms[one[:done] % forms.size],
          level: [1 + (one[:done] / 3), 3].min
        }
      end
    end
  end
end

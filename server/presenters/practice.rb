# frozen_string_literal: true

module Gorvant
  module Server
    # Practice as JSON. Nothing here reads what a drill has sealed: what is really so comes with the result of a try
    # that is done, from its own row.
    module Present
      class << self
        def drill(row)
          form = Catalogue.practice.dig("forms", row[:form])
          row.slice(:id, :form, :subject, :level, :rig_id, :rig_name, :questions, :outdoor_degrees_f).merge(
            title: form["title"],
            says: form["says"],
            subject_title: Catalogue.practice.dig("subjects", row[:subject], "title"),
            complaint: row[:symptoms].to_a.map { |id| Catalogue.symptoms.fetch(id).fetch("title") }
          )
        end

        # A try in a list.
        def try_line(row)
          drill(row.merge(id: row[:drill_id], rig_id: nil)).merge(
            id: row[:id],
            drill_id: row[:drill_id],
            state: row[:state],
            marks: row[:marks],
            acts: row[:log].to_a.size,
            updated_at: row[:updated_at].iso8601
          )
        end

        # A try as it stands. unit: what there is to act on; ask: the next question, nil for none.
        def try(row, drill_row, unit: nil, ask: nil)
          {
            id: row[:id],
            version: row[:version],
            state: row[:state],
            marks: row[:marks],
            course_id: row[:course_id],
            drill: drill(drill_row),
            standing: row[:standing] && standing(row[:standing].to_hash),
            log: row[:log].to_a.map(&:to_hash),
            unit: unit,
            ask: ask,
            decision: row[:decision]&.to_a,
            result: row[:state] == "done" ? row[:result]&.to_hash : nil
          }
        end

        def standing(kept)
          kept.slice(
            "place",
            "call",
            "off",
            "proved",
            "lifted",
            "jumpers",
            "opened",
            "walks",
            "acts",
            "parts",
            "began"
          ).merge("minutes" => (kept["seconds"] / 60).round(1))
        end

        # What was seen of an act, as it is kept and shown.
        def act_entry(act, outcome, netlist)
          {
            "act" => act.given,
            "title" => Practice::ActWords.title(act, netlist),
            "says" => outcome.says,
            "data" => outcome.data.transform_keys(&:to_s),
            "stopped" => outcome.stopped&.to_h&.transform_keys(&:to_s),
            "minutes" => (outcome.standing.seconds / 60).round(1),
            "place" => outcome.standing.place
          }
        end

        # marks_by_subject: { subject => [[subject, marks, done_at]] }
        def progress(marks_by_subject, now)
          Catalogue
            .practice
            .fetch("subjects")
            .map do |id, about|
              rows = marks_by_subject.fetch(id, [])
              repetition = Practice::Repetition.after(rows.map { |row| row[1] })
              due = rows.empty? ? nil : rows.last[2] + (repetition.days * 86_400)
              {
                id: id,
                title: about["title"],
                forms: ["find", *about["forms"]],
                standing: repetition.standing,
                done: rows.size,
                last_marks: rows.last&.at(1),
                due_at: due&.iso8601,
                due: due.nil? || due <= now
              }
            end
        end

        # names: { user_id => name }; tries: rows of the course, nil for who only learns.
        def course(row, drill_rows, names, tries, mine)
          {
            id: row[:id],
            name: row[:name],
            made_by: names[row[:created_by]],
            mine: mine,
            learners: row[:learner_ids].to_a.map { |id| names[id] }.compact,
            drills: row[:drill_ids].to_a.filter_map { |id| drill_rows[id] && drill(drill_rows[id]) },
            results: tries && results(tries, names),
            by_learner: tries && by_learner(row, drill_rows, names, tries)
          }
        end

        # How a decision is put together: groups of kinds, with what has to be named beside each.
        def decisions
          Catalogue
            .practice
            .fetch("decisions")
            .map do |id, group|
              kinds = group["kinds"].map { |kind, at| { id: kind, title: Practice::Decision.title(kind), at: at } }
              { id: id, title: group["title"], kinds: kinds }
            end
        end

        # What no meter shows, and what is as designed: the same list for every unit.
        def designs =
          %w[hidden as_designed].to_h do |kind|
            [kind, Diagnosis.numbers.fetch(kind).map { |id, about| { id: id, title: about["title"] } }]
          end

        def practice_catalogue
          practice = Catalogue.practice
          {
            forms: practice["forms"].map { |id, about| { id: id, **about.transform_keys(&:to_sym) } },
            levels: practice["levels"].map { |id, about| { id: id, title: about["title"] } },
            decisions: decisions,
            designs: designs
          }
        end

        private

        # How each learner stands in each subject of a course, by its own drills alone: what they practice beside it is
        # theirs. Those to whom it was handed and who have done nothing are there, too.
        def by_learner(row, drill_rows, names, tries)
          subjects = row[:drill_ids].to_a.filter_map { |id| drill_rows[id]&.fetch(:subject) }.uniq
          done = tries.select { |one| one[:state] == "done" && drill_rows[one[:drill_id]] }.group_by { _1[:created_by] }
          (row[:learner_ids].to_a | done.keys).map do |id|
            mine =
              done.fetch(id, []).sort_by { |one| one[:done_at] }.group_by { |one| drill_rows[one[:drill_id]][:subject] }
            { learner: names[id], subjects: subjects.map { |subject| stands(subject, mine.fetch(subject, [])) } }
          end
        end

        def stands(subject, tries)
          {
            id: subject,
            title: Catalogue.practice.dig("subjects", subject, "title"),
            standing: Practice::Repetition.after(tries.map { |one| one[:marks] }).standing,
            done: tries.size,
            last_marks: tries.last&.fetch(:marks)
          }
        end

        def results(tries, names)
          tries.map do |one|
            one.slice(:drill_id, :state, :marks).merge(
              learner: names[one[:created_by]],
              done_at: one[:done_at]&.iso8601
            )
          end
        end
      end
    end
  end
end

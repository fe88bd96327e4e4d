# frozen_string_literal: true

# A policy asks once a statement whose rows may be seen, not once a row. Which rows those are stays as it was.
Sequel.migration do
  policies = ->(db, asked, instead) do
    db
      .fetch("SELECT tablename, policyname, qual, with_check FROM pg_policies WHERE schemaname = 'public'")
      .all
      .each do |policy|
        using, check = policy.values_at(:qual, :with_check).map { |text| text&.gsub(asked, instead) }
        next if [using, check] == policy.values_at(:qual, :with_check)

        db.run(
          "ALTER POLICY #{policy[:policyname]} ON #{policy[:tablename]}" \
            "#{" USING (#{using})" if using}#{" WITH CHECK (#{check})" if check}"
        )
      end
  end

  up { policies.call(self, /(?<!SELECT )current_crew\(\)/, "(SELECT current_crew())") }
  down { policies.call(self, "( SELECT current_crew() AS current_crew)", "current_crew()") }
end

# frozen_string_literal: true

# Visits are found by what their closing names as the cause, and a unit says since when it stands. The search before
# this one stays, for a process that is still serving with it.
Sequel.migration do
  up do
    add_column :units, :installed_year, :integer
    run <<~SQL
      CREATE INDEX closings_by_cause ON closings (crew_id, (content #>> '{report,cause}')) WHERE reopened_at IS NULL;
      CREATE FUNCTION search_visits(asked tsquery, symptom text, by_whom uuid, is_closed boolean, since date, until date, cause text, most integer)
        RETURNS TABLE (visit_id uuid, hit text) LANGUAGE plpgsql STABLE SECURITY DEFINER
        SET search_path = public, pg_temp AS $$
      DECLARE
        -- Planned with what is asked for, so that the index that suits it is taken.
        wanted text := 'SELECT kept.visit_id, kept.visit_on, kept.begun_at, kept.said FROM search_documents kept
          JOIN visits ON visits.id = kept.visit_id WHERE kept.crew_id = $1 AND visits.crew_id = $1';
      BEGIN
        IF asked IS NOT NULL THEN wanted := wanted || ' AND kept.words @@ $2'; END IF;
        IF symptom IS NOT NULL THEN wanted := wanted || ' AND visits.symptoms ? $3'; END IF;
        IF by_whom IS NOT NULL THEN wanted := wanted || ' AND visits.created_by = $4'; END IF;
        IF is_closed THEN wanted := wanted || ' AND visits.closed_number IS NOT NULL'; END IF;
        IF NOT is_closed THEN wanted := wanted || ' AND visits.closed_number IS NULL'; END IF;
        IF since IS NOT NULL THEN wanted := wanted || ' AND kept.visit_on >= $5'; END IF;
        IF until IS NOT NULL THEN wanted := wanted || ' AND kept.visit_on <= $6'; END IF;
        IF cause IS NOT NULL THEN wanted := wanted || ' AND kept.visit_id IN (SELECT closings.visit_id FROM closings
          WHERE closings.crew_id = $1 AND closings.reopened_at IS NULL AND closings.content #>> ''{report,cause}'' = $8)';
        END IF;
        RETURN QUERY EXECUTE 'WITH found AS (' || wanted ||
          ' ORDER BY kept.visit_on DESC, kept.begun_at DESC, kept.visit_id LIMIT $7)
          SELECT found.visit_id, CASE WHEN $2 IS NULL THEN '''' ELSE ts_headline(''simple'', said, $2,
            ''MaxWords=22, MinWords=8, MaxFragments=1, StartSel="", StopSel=""'') END
          FROM found ORDER BY visit_on DESC, begun_at DESC, found.visit_id'
          USING current_crew(), asked, symptom, by_whom, since, until, most, cause;
      END $$;
    SQL
  end

  down do
    run "DROP FUNCTION search_visits(tsquery, text, uuid, boolean, date, date, text, integer)"
    run "DROP INDEX closings_by_cause"
    drop_column :units, :installed_year
  end
end

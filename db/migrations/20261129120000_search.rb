# frozen_string_literal: true

# What a visit says in words, kept together and kept up by the database itself, whoever writes. Row-level security would
# keep a text index from being used, so it is searched through one function that reads the crew itself. A crew's own
# words are kept beside it: what was mistyped is read as the nearest of them.
Sequel.migration do
  # { table => [what is kept up of its row, when] }
  follows = {
    "visits" => ["keep_searched(NEW.id)", ""],
    "visit_desks" => ["keep_searched(NEW.visit_id)", "WHEN (NEW.desk = 'close_out')"],
    "readings" => ["keep_searched(NEW.visit_id)", "WHEN (NEW.note IS NOT NULL)"],
    "photos" => ["keep_searched(NEW.visit_id)", ""],
    "closings" => ["keep_searched(NEW.visit_id)", ""],
    "units" => ["keep_searched(visits.id) FROM visits WHERE visits.unit_id = NEW.id", ""],
    "sites" => [
      "keep_searched(visits.id) FROM visits JOIN units ON units.id = visits.unit_id WHERE units.site_id = NEW.id",
      ""
    ]
  }

  up do
    create_table(:search_documents) do
      foreign_key :visit_id, :visits, type: :uuid, primary_key: true, on_delete: :cascade
      foreign_key :crew_id, :crews, type: :uuid, null: false
      text :said, null: false
      tsvector :words, null: false
      date :visit_on, null: false
      timestamptz :begun_at, null: false
      index :words, type: :gin
      index [:crew_id, Sequel.desc(:visit_on), Sequel.desc(:begun_at), :visit_id], name: :search_documents_newest
    end
    create_table(:search_words) do
      foreign_key :crew_id, :crews, type: :uuid, null: false, on_delete: :cascade
      text :word, null: false
      primary_key %i[crew_id word]
    end
    %w[search_documents search_words].each do |table|
      run "ALTER TABLE #{table} ENABLE ROW LEVEL SECURITY"
      run "CREATE POLICY own_crew ON #{table} USING (crew_id = current_crew()) WITH CHECK (crew_id = current_crew())"
    end

    run <<~SQL
      CREATE FUNCTION visit_in_words(visit uuid) RETURNS text LANGUAGE sql STABLE AS $$
        SELECT concat_ws(' · ', sites.name, units.name, NULLIF(visits.complaint, ''),
          (SELECT string_agg(replace(symptom, '_', ' '), ' · ') FROM jsonb_array_elements_text(visits.symptoms) symptom),
          (SELECT concat_ws(' · ', content ->> 'finding', content ->> 'plain', content ->> 'done', content ->> 'parts',
                            content ->> 'follow_up', content ->> 'left_off')
             FROM visit_desks WHERE visit_id = visits.id AND desk = 'close_out'),
          (SELECT content #>> '{report,sections,0,blocks,0,says}' FROM closings
             WHERE visit_id = visits.id AND number = visits.closed_number),
          NULLIF(units.notes, ''), NULLIF(sites.notes, ''),
          (SELECT string_agg(note, ' · ') FROM readings WHERE visit_id = visits.id AND retracted_at IS NULL),
          (SELECT string_agg(NULLIF(note, ''), ' · ') FROM photos WHERE visit_id = visits.id),
          rig_revisions.content ->> 'name', rig_revisions.content #>> '{facts,board_family,value}',
          (SELECT name FROM users WHERE id = visits.created_by))
        FROM visits JOIN units ON units.id = visits.unit_id JOIN sites ON sites.id = units.site_id
          JOIN rig_revisions ON rig_revisions.id = visits.rig_revision_id
        WHERE visits.id = visit
      $$;
      CREATE FUNCTION keep_searched(visit uuid) RETURNS void LANGUAGE plpgsql SECURITY DEFINER
        SET search_path = public, pg_temp AS $$
      DECLARE
        words tsvector;
        said text := visit_in_words(visit);
        crew uuid;
        day date;
        begun timestamptz;
      BEGIN
        IF said IS NULL THEN RETURN; END IF;
        SELECT crew_id, visit_on, created_at INTO crew, day, begun FROM visits WHERE id = visit;
        words := to_tsvector('simple', said);
        INSERT INTO search_documents AS kept VALUES (visit, crew, said, words, day, begun)
          ON CONFLICT (visit_id) DO UPDATE
          SET said = EXCLUDED.said, words = EXCLUDED.words, visit_on = EXCLUDED.visit_on, begun_at = EXCLUDED.begun_at
          WHERE (kept.said, kept.visit_on) IS DISTINCT FROM (EXCLUDED.said, EXCLUDED.visit_on);
        INSERT INTO search_words SELECT crew, lexeme FROM unnest(tsvector_to_array(words)) lexeme
          WHERE length(lexeme) BETWEEN 3 AND 30 ON CONFLICT DO NOTHING;
      END $$;
      CREATE FUNCTION search_visits(asked tsquery, symptom text, by_whom uuid, is_closed boolean, since date, until date, most integer)
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
        RETURN QUERY EXECUTE 'WITH found AS (' || wanted ||
          ' ORDER BY kept.visit_on DESC, kept.begun_at DESC, kept.visit_id LIMIT $7)
          SELECT found.visit_id, CASE WHEN $2 IS NULL THEN '''' ELSE ts_headline(''simple'', said, $2,
            ''MaxWords=22, MinWords=8, MaxFragments=1, StartSel="", StopSel=""'') END
          FROM found ORDER BY visit_on DESC, begun_at DESC, found.visit_id'
          USING current_crew(), asked, symptom, by_whom, since, until, most;
      END $$;
    SQL
    follows.each { |table, (visits, only)| run <<~SQL }
        CREATE FUNCTION searched_#{table}() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER
          SET search_path = public, pg_temp AS $$
        BEGIN
          PERFORM #{visits};
          RETURN NULL;
        END $$;
        CREATE TRIGGER searched AFTER INSERT OR UPDATE ON #{table} FOR EACH ROW #{only}
          EXECUTE FUNCTION searched_#{table}();
      SQL
    run "SELECT keep_searched(id) FROM visits"
  end

  down do
    follows.each_key do |table|
      run "DROP TRIGGER searched ON #{table}"
      run "DROP FUNCTION searched_#{table}()"
    end
    run "DROP FUNCTION search_visits(tsquery, text, uuid, boolean, date, date, integer)"
    run "DROP FUNCTION keep_searched(uuid)"
    run "DROP FUNCTION visit_in_words(uuid)"
    drop_table(:search_documents, :search_words)
  end
end

# frozen_string_literal: true

module Gorvant
  module Server
    # Errors as RFC 9457 problem details. The one place where an error class becomes a status.
    module Problem
      STATUS = {
        NotSignedIn => 401,
        NotLetIn => 401,
        PasskeyNotKnown => 401,
        CodeWanted => 401,
        NotAllowed => 403,
        OldToken => 403,
        SomebodyElse => 403,
        TooManyTries => 429,
        TooOften => 429,
        OneByOne => 429,
        NotFound => 404,
        IdTaken => 409,
        Stale => 409,
        Closed => 409,
        NotReady => 422,
        TooLarge => 413,
        WrongMedia => 415,
        NotJson => 400,
        BadAddress => 400,
        GaveUp => 503,
        Busy => 503,
        Depot::Away => 503,
        Invalid => 422,
        Refused => 422,
        BadRigFile => 422,
        BadRig => 422,
        BadCondition => 422,
        BadObservation => 422,
        BadRecord => 422,
        BadArchive => 422,
        BadNetlist => 422,
        BadNotation => 422,
        BadScript => 422,
        BadAsFound => 422,
        BadHistory => 422,
        Formats::BadFieldLog => 422,
        RefusedSetUp => 422,
        BadPhoto => 422,
        UnknownSignal => 422,
        ZeroTimeLoop => 422,
        Practice::BadAct => 422
      }.freeze

      RETRY_AFTER_SECONDS = 2
      MOST_PROBLEMS = 20
      MOST_CHARACTERS = 400

      class << self
        def response(error, env = {})
          status = STATUS.find { |kind, _| error.is_a?(kind) }&.last || 500
          env[Journal::CODE] = error.class.code
          again = retry_after(error)
          [status, { "content-type" => "application/problem+json", **again }, [JSON.generate(body(error, status))]]
        end

        # The database does not answer. kept: "nothing" where it is sure that nothing was, "unknown" where a write may
        # have been.
        def unavailable(kept, env)
          env[Journal::CODE] = "database_away"
          detail = Catalogue.wording.fetch("server.away_#{kept}")
          [
            503,
            { "content-type" => "application/problem+json", "retry-after" => RETRY_AFTER_SECONDS.to_s },
            [
              JSON.generate(
                {
                  "type" => "urn:gorvant:problem:database_away",
                  "title" => "Not now",
                  "status" => 503,
                  "detail" => detail,
                  "kept" => kept
                }
              )
            ]
          ]
        end

        # For what no core error describes, such as an unknown address.
        def plain(status, title, detail)
          [
            status,
            { "content-type" => "application/problem+json" },
            [JSON.generate({ "type" => "about:blank", "title" => title, "status" => status, "detail" => detail })]
          ]
        end

        private

        def retry_after(error)
          seconds = error.is_a?(Busy) || error.is_a?(OneByOne) ? 1 : error.fields[:seconds]
          seconds ? { "retry-after" => seconds.to_s } : {}
        end

        def body(error, status)
          {
            "type" => "urn:gorvant:problem:#{error.class.code}",
            "title" => error.is_a?(Busy) ? "Busy" : title(status),
            "status" => status,
            "detail" => short(error.message),
            "errors" =>
              errors(error)
                .first(error.is_a?(NotReady) ? error.problems.size : MOST_PROBLEMS)
                .map { |problem| problem.transform_values { |value| value.is_a?(String) ? short(value) : value } }
          }.merge(versions(error))
        end

        def short(text) = text.size > MOST_CHARACTERS ? "#{text[0, MOST_CHARACTERS]}…" : text

        def title(status)
          {
            400 => "Not readable",
            401 => "Not signed in",
            403 => "Not allowed",
            429 => "Wait",
            404 => "Not found",
            409 => "Conflict",
            413 => "Too large",
            415 => "Wrong media type",
            422 => "Not acceptable",
            503 => "Took too long"
          }.fetch(status, "Server error")
        end

        def errors(error)
          return error.problems.map { |problem| problem.merge("field" => "/text") } if error.is_a?(BadNotation)
          return error.problems if error.respond_to?(:problems)

          error.field ? [{ "field" => error.field, "problem" => error.fields.fetch(:problem, error.message) }] : []
        end

        def versions(error)
          return {} unless error.is_a?(Stale)

          error
            .fields
            .slice(:current_version, :current, :given, :merged, :mine_stands, :theirs_stand, :theirs, :both)
            .transform_keys(&:to_s)
        end
      end
    end
  end
end

-- +goose Up
-- Long work that goes on behind a request: the tables of the job queue (River, line main, versions 1 to 8 in one).
CREATE TYPE river_job_state AS ENUM ('available', 'cancelled', 'completed', 'discarded', 'pending', 'retryable',
    'running', 'scheduled');

-- +goose StatementBegin
CREATE FUNCTION river_job_state_in_bitmask(bitmask bit(8), state river_job_state) RETURNS boolean
LANGUAGE sql IMMUTABLE AS $$
    SELECT CASE state
        WHEN 'available' THEN get_bit(bitmask, 7)
        WHEN 'cancelled' THEN get_bit(bitmask, 6)
        WHEN 'completed' THEN get_bit(bitmask, 5)
        WHEN 'discarded' THEN get_bit(bitmask, 4)
        WHEN 'pending' THEN get_bit(bitmask, 3)
        WHEN 'retryable' THEN get_bit(bitmask, 2)
        WHEN 'running' THEN get_bit(bitmask, 1)
        WHEN 'scheduled' THEN get_bit(bitmask, 0)
        ELSE 0
    END = 1;
$$;
-- +goose StatementEnd

CREATE TABLE river_job (
    id            bigserial       CONSTRAINT river_job_pkey PRIMARY KEY,
    state         river_job_state NOT NULL DEFAULT 'available',
    attempt       smallint        NOT NULL DEFAULT 0,
    max_attempts  smallint        NOT NULL DEFAULT 25,
    attempted_at  timestamptz,
    created_at    timestamptz     NOT NULL DEFAULT now(),
    finalized_at  timestamptz,
    scheduled_at  timestamptz     NOT NULL DEFAULT now(),
    priority      smallint        NOT NULL DEFAULT 1,
    args          jsonb           NOT NULL,
    attempted_by  text[],
    errors        jsonb[],
    kind          text            NOT NULL,
    metadata      jsonb           NOT NULL DEFAULT '{}',
    queue         text            NOT NULL DEFAULT 'default',
    tags          varchar(255)[]  NOT NULL DEFAULT '{}',
    unique_key    bytea,
    unique_states bit(8),
    CONSTRAINT finalized_or_finalized_at_null
        CHECK ((finalized_at IS NOT NULL) = (state IN ('cancelled', 'completed', 'discarded'))),
    CONSTRAINT kind_length CHECK (char_length(kind) > 0 AND char_length(kind) < 128),
    CONSTRAINT max_attempts_is_positive CHECK (max_attempts > 0),
    CONSTRAINT priority_in_range CHECK (priority BETWEEN 1 AND 4),
    CONSTRAINT queue_length CHECK (char_length(queue) > 0 AND char_length(queue) < 128)
);
CREATE INDEX river_job_args_index ON river_job USING gin (args);
CREATE INDEX river_job_kind ON river_job (kind);
CREATE INDEX river_job_metadata_index ON river_job USING gin (metadata);
CREATE INDEX river_job_prioritized_fetching_index ON river_job (state, queue, priority, scheduled_at, id);
CREATE INDEX river_job_state_and_finalized_at_index ON river_job (state, finalized_at) WHERE finalized_at IS NOT NULL;
CREATE UNIQUE INDEX river_job_unique_idx ON river_job (unique_key)
    WHERE unique_key IS NOT NULL AND unique_states IS NOT NULL AND river_job_state_in_bitmask(unique_states, state);

CREATE UNLOGGED TABLE river_leader (
    elected_at timestamptz NOT NULL,
    expires_at timestamptz NOT NULL,
    leader_id  text        NOT NULL,
    name       text        NOT NULL DEFAULT 'default' CONSTRAINT river_leader_pkey PRIMARY KEY,
    CONSTRAINT leader_id_length CHECK (char_length(leader_id) > 0 AND char_length(leader_id) < 128),
    CONSTRAINT name_length CHECK (name = 'default')
);

CREATE TABLE river_notification (
    id         bigserial   CONSTRAINT river_notification_pkey PRIMARY KEY,
    created_at timestamptz NOT NULL DEFAULT now(),
    payload    text        NOT NULL,
    topic      text        NOT NULL,
    CONSTRAINT topic_length CHECK (length(topic) > 0 AND length(topic) < 128)
);
CREATE INDEX river_notification_created_at_idx ON river_notification (created_at);
CREATE INDEX river_notification_topic_id_idx ON river_notification (topic, id);

CREATE TABLE river_queue (
    name       text        CONSTRAINT river_queue_pkey PRIMARY KEY,
    created_at timestamptz NOT NULL DEFAULT now(),
    metadata   jsonb       NOT NULL DEFAULT '{}',
    paused_at  timestamptz,
    updated_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE river_migration (
    line       text        NOT NULL,
    version    bigint      NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    CONSTRAINT river_migration_pkey PRIMARY KEY (line, version),
    CONSTRAINT line_length CHECK (char_length(line) > 0 AND char_length(line) < 128),
    CONSTRAINT version_gte_1 CHECK (version >= 1)
);
INSERT INTO river_migration (line, version) SELECT 'main', n FROM generate_series(1, 8) n;

-- +goose Down
DROP TABLE river_migration, river_queue, river_notification, river_leader, river_job;
DROP FUNCTION river_job_state_in_bitmask;
DROP TYPE river_job_state;

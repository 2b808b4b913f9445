-- +goose Up
-- How the memory of a machine is laid out, for the lines of its memory test.
CREATE TABLE memory_layout (
    machine_id bigint      CONSTRAINT memory_layout_pkey PRIMARY KEY CONSTRAINT memory_layout_machine_fkey REFERENCES machine (id),
    body       jsonb       NOT NULL,
    version    integer     NOT NULL DEFAULT 1,
    at         timestamptz NOT NULL DEFAULT now()
);

-- +goose Down
DROP TABLE memory_layout;

-- +goose Up
-- People and organisations that had to do with the collection's things. A private person's name is
-- for staff; everybody else is told the role.
CREATE TABLE party (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT party_pkey PRIMARY KEY,
    name       text        NOT NULL,
    kind       text        NOT NULL CONSTRAINT party_kind_known CHECK (kind IN ('person', 'organisation')),
    private    boolean     NOT NULL DEFAULT false,
    role       text        NOT NULL DEFAULT '',
    spellings  text        NOT NULL DEFAULT '', -- other ways in which the name is written, a line each
    place      text        NOT NULL DEFAULT '',
    note       text        NOT NULL DEFAULT '',
    version    integer     NOT NULL DEFAULT 1,
    updated_at timestamptz NOT NULL DEFAULT now(),
    CONSTRAINT party_private_has_role CHECK (NOT private OR role <> ''),
    CONSTRAINT party_private_is_person CHECK (NOT private OR kind = 'person')
);
CREATE UNIQUE INDEX party_name_key ON party (lower(name));
CREATE INDEX party_private_idx ON party (id) WHERE private;

-- +goose Down
DROP TABLE party;

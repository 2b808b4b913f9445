-- +goose Up
-- What was read out of read-only memories. The bytes lie in the blob store under the SHA-256 and never change.
CREATE TABLE rom_image (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT rom_image_pkey PRIMARY KEY,
    sha256     text        NOT NULL CONSTRAINT rom_image_sha256_key UNIQUE CONSTRAINT rom_image_sha256_form CHECK (sha256 ~ '^[0-9a-f]{64}$'),
    bytes      integer     NOT NULL,
    crc32      text        NOT NULL,
    sha1       text        NOT NULL,
    effective  text        NOT NULL, -- SHA-256 of one copy of what repeats: the same content in another device
    inspection jsonb       NOT NULL,
    name       text        NOT NULL DEFAULT '', -- given once, known wherever the content is met
    version    text        NOT NULL DEFAULT '',
    note       text        NOT NULL DEFAULT '',
    made_from  text        NOT NULL DEFAULT '', -- in words, for one that was put together or taken apart here
    public     boolean     NOT NULL DEFAULT false,
    changes    integer     NOT NULL DEFAULT 1,
    account_id bigint      CONSTRAINT rom_image_account_fkey REFERENCES account (id),
    at         timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX rom_image_crc32_idx ON rom_image (crc32);
CREATE INDEX rom_image_effective_idx ON rom_image (effective);

-- A reading of the chip in a socket.
CREATE TABLE rom_read (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT rom_read_pkey PRIMARY KEY,
    sha256      text        NOT NULL CONSTRAINT rom_read_image_fkey REFERENCES rom_image (sha256),
    assembly_id bigint      NOT NULL CONSTRAINT rom_read_assembly_fkey REFERENCES assembly (id),
    designator  text        NOT NULL,
    label       text        NOT NULL DEFAULT '', -- what stands on the chip
    marking     text        NOT NULL DEFAULT '', -- what the sheet said of the chip then: another may sit there today
    revision    integer     NOT NULL DEFAULT 0,  -- of the sheet
    way         text        NOT NULL, -- how it was read, in words
    read_on     date        NOT NULL DEFAULT current_date,
    exception   text        NOT NULL DEFAULT '', -- why no second reading can be had
    struck      boolean     NOT NULL DEFAULT false,
    account_id  bigint      CONSTRAINT rom_read_account_fkey REFERENCES account (id),
    at          timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX rom_read_socket_idx ON rom_read (assembly_id, designator, id) WHERE NOT struck;
CREATE INDEX rom_read_image_idx ON rom_read (sha256) WHERE NOT struck;

-- All images of a board together, as they belong to one version.
CREATE TABLE rom_set (
    id      bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT rom_set_pkey PRIMARY KEY,
    name    text    NOT NULL CONSTRAINT rom_set_name_key UNIQUE,
    note    text    NOT NULL DEFAULT '',
    changes integer NOT NULL DEFAULT 1
);
CREATE TABLE rom_set_image (
    set_id bigint NOT NULL CONSTRAINT rom_set_image_set_fkey REFERENCES rom_set (id),
    sha256 text   NOT NULL CONSTRAINT rom_set_image_image_fkey REFERENCES rom_image (sha256),
    place  text   NOT NULL, -- socket in which it belongs, as U14
    CONSTRAINT rom_set_image_pkey PRIMARY KEY (set_id, place)
);

-- A chip that a reader on the network reads, or has read. Twice the size of the chip is read in all.
CREATE TABLE chip_reading (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT chip_reading_pkey PRIMARY KEY,
    assembly_id bigint      NOT NULL CONSTRAINT chip_reading_assembly_fkey REFERENCES assembly (id),
    designator  text        NOT NULL,
    device      text        NOT NULL,
    label       text        NOT NULL DEFAULT '',
    exception   text        NOT NULL DEFAULT '',
    state       text        NOT NULL CONSTRAINT chip_reading_state_known CHECK (state IN ('running', 'stopped', 'refused', 'done')),
    size        integer     NOT NULL,
    got         bytea       NOT NULL DEFAULT '',
    again       integer     NOT NULL DEFAULT 0, -- blocks that had to be read more than once
    note        text        NOT NULL DEFAULT '', -- why it stopped or was refused, or what came of it
    account_id  bigint      CONSTRAINT chip_reading_account_fkey REFERENCES account (id),
    at          timestamptz NOT NULL DEFAULT now(),
    updated_at  timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX chip_reading_running_idx ON chip_reading (updated_at) WHERE state = 'running';

-- +goose Down
DROP TABLE chip_reading;
DROP TABLE rom_set_image;
DROP TABLE rom_set;
DROP TABLE rom_read;
DROP TABLE rom_image;

-- Photographs and the originals of decoded clips are read again over time, as clips are.
CREATE TABLE file_check (
  shelf text NOT NULL CHECK (shelf IN ('photos', 'originals')),
  sha256 char(64) NOT NULL,
  checked_at timestamptz NOT NULL,
  problem text,
  PRIMARY KEY (shelf, sha256)
);

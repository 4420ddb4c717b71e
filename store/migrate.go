package store

import (
	"context"
	"fmt"

	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/gorm"
)

// migrationLock is the advisory lock under which the schema is brought up to
// date, so that servers started at the same time take turns.
const migrationLock = 0x6779726f

// migrations in order; one that has been released is never edited.
var migrations = []*gormigrate.Migration{
	{
		ID: "0001_painters",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table painters (
					id bigint generated always as identity primary key,
					name text not null check (length(name) between 1 and 80),
					demo boolean not null default false,
					passphrase_hash text not null default '',
					created_at timestamptz not null
				);
				create unique index painters_name on painters (lower(name));
				create table secrets (
					name text primary key,
					value bytea not null
				);`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table secrets, painters`).Error },
	},
}

// Migrate brings the schema up to date.
func (s *Store) Migrate(ctx context.Context) error {
	conn, err := s.sql.Conn(ctx)
	if err != nil {
		return fmt.Errorf("reach the database: %w", err)
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, "select pg_advisory_lock($1)", migrationLock); err != nil {
		return fmt.Errorf("take the migration lock: %w", err)
	}
	defer conn.ExecContext(context.WithoutCancel(ctx), "select pg_advisory_unlock($1)", migrationLock) //nolint:errcheck // closing frees it too
	options := *gormigrate.DefaultOptions
	options.UseTransaction = true
	if err := gormigrate.New(s.db.WithContext(ctx), &options, migrations).Migrate(); err != nil {
		return fmt.Errorf("bring the tables up to date: %w", err)
	}
	return nil
}

package store

import (
	"context"

	"github.com/riverqueue/river/riverdriver/riverpgxv5"
	"github.com/riverqueue/river/rivermigrate"
)

// migrateQueue brings the tables of the queue library up to date, which has migrations of its own: each is taken once, one after
// the other and not as one, for later ones need earlier ones to be there. The migration lock is held.
func (s *Store) migrateQueue(ctx context.Context) error {
	pool, err := s.Pool(2)
	if err != nil {
		return err
	}
	defer pool.Close()
	migrator, err := rivermigrate.New(riverpgxv5.New(pool), nil)
	if err != nil {
		return err
	}
	is, err := migrator.Validate(ctx, nil)
	if err != nil || is.OK {
		return err
	}
	_, err = migrator.Migrate(ctx, rivermigrate.DirectionUp, nil)
	return err
}

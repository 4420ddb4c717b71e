package store

import (
	"context"
	"fmt"
	"time"

	"github.com/jackc/pgx/v5"
	"gorm.io/gorm"
)

// Done is that something was done in one of a painter's sittings.
type Done struct{ Painter, Sitting int64 }

// changed is the channel on which the processes on a database tell each other of it.
const changed = "gyrophane_sitting"

// tell lets every process know, once it is written, that something was done in a sitting.
func tell(tx *gorm.DB, painter, sitting int64) error {
	return tx.Exec("select pg_notify(?, ?)", changed, fmt.Sprintf("%d %d", painter, sitting)).Error
}

// How long it may take to listen, how often a silent line is asked whether it is there, and how long before another is tried.
const (
	lineTime = 5 * time.Second
	lineBeat = 15 * time.Second
	lineWait = 500 * time.Millisecond
)

// Listen hears what is done in sittings, by whatever process on the database, until the context ends. When the line is there,
// the first time and after each time that it was lost, begun is called: what was done before is not heard.
func (s *Store) Listen(ctx context.Context, begun func(), heard func(Done)) {
	for ctx.Err() == nil {
		_ = s.listen(ctx, begun, heard) // what the database cannot do is said where it is asked for something
		select {
		case <-ctx.Done():
		case <-time.After(lineWait):
		}
	}
}

func (s *Store) listen(ctx context.Context, begun func(), heard func(Done)) error {
	on, cancel := context.WithTimeout(ctx, lineTime)
	defer cancel()
	line, err := pgx.ConnectConfig(on, s.config.Copy())
	if err != nil {
		return err
	}
	defer func() {
		bye, cancel := context.WithTimeout(context.Background(), time.Second)
		defer cancel()
		_ = line.Close(bye) // it may be lost already
	}()
	if _, err := line.Exec(on, "listen "+changed); err != nil {
		return err
	}
	begun()
	for {
		wait, cancel := context.WithTimeout(ctx, lineBeat)
		said, err := line.WaitForNotification(wait)
		silent := wait.Err() != nil && ctx.Err() == nil
		cancel()
		switch {
		case silent:
			asked, cancel := context.WithTimeout(ctx, lineTime)
			err := line.Ping(asked)
			cancel()
			if err != nil {
				return err
			}
		case err != nil:
			return err
		default:
			var of Done
			if n, err := fmt.Sscanf(said.Payload, "%d %d", &of.Painter, &of.Sitting); err == nil && n == 2 {
				heard(of)
			}
		}
	}
}

package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgxpool"
)

// How long it may take to listen, how often a silent line is asked whether it is there, and how long before another is tried.
const (
	lineTime = 5 * time.Second
	lineBeat = 15 * time.Second
	lineWait = 500 * time.Millisecond
)

// Hear hears what any process on the database says on a channel, until the context ends. When the line is there, the first time
// and after each time that it was lost, begun is called: what was said before is not heard.
func (s *Store) Hear(ctx context.Context, channel string, begun func(), heard func(said string)) {
	for ctx.Err() == nil {
		_ = s.hear(ctx, channel, begun, heard) // what the database cannot do is said where it is asked for something
		select {
		case <-ctx.Done():
		case <-time.After(lineWait):
		}
	}
}

func (s *Store) hear(ctx context.Context, channel string, begun func(), heard func(said string)) error {
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
	if _, err := line.Exec(on, "listen "+pgx.Identifier{channel}.Sanitize()); err != nil {
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
			heard(said.Payload)
		}
	}
}

// Pool is a pool of so many connections to the database, for what GORM does not do. It connects when it is first used.
func (s *Store) Pool(most int32) (*pgxpool.Pool, error) {
	config, err := pgxpool.ParseConfig(s.config.ConnString())
	if err != nil {
		return nil, err
	}
	config.MaxConns, config.MinConns, config.MaxConnIdleTime = most, 0, time.Minute
	config.ConnConfig.ConnectTimeout = s.config.ConnectTimeout
	return pgxpool.NewWithConfig(context.Background(), config)
}

// Package jobs does what takes longer than about a second as jobs in PostgreSQL, by whichever process on the database has a hand
// free. A painter has one turn at a time in each line, so that nobody who asks for much keeps others waiting; what was asked
// for ends with whoever asked, and what a process leaves that dies is done by another.
package jobs

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"sync"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/riverqueue/river"

	"gyrophane/store"
)

// Line is where jobs of a kind wait: those of one do not wait for those of another.
type Line string

// Queue are the jobs of one database.
type Queue struct {
	store *store.Store
	log   *slog.Logger
	kinds map[string]kind
	hands map[Line]int
	// Done is told how long each job waited for its turn and was worked on; it is set before anything is asked for, and may be nil.
	Done func(kind string, waited, worked time.Duration)

	mu      sync.Mutex
	pool    *pgxpool.Pool
	client  *river.Client[pgx.Tx] // nil until it works
	end     context.CancelFunc    // of listening and tidying
	stopped bool
	waiters map[int64][]chan struct{}         // of jobs, to be looked at
	running map[int64]context.CancelCauseFunc // jobs, here
}

// Work does a job: arguments and results are what its kind makes of them. It ends when the context does; report may be called as
// often as one likes, from any goroutine.
type Work func(ctx context.Context, painter int64, args []byte, report func(Progress)) (result []byte, err error)

type kind struct {
	line  Line
	limit time.Duration
	work  Work
}

// Progress is how far a job is.
type Progress struct {
	Stage    string // what is done; Queued before its turn comes
	Done, Of int    // when it is queued Done is its place in line, 1 being the next
}

// Queued is the stage of a job whose turn has not come.
const Queued = "queue"

// Job is what is asked for.
type Job struct {
	Painter int64
	Kind    string
	Ticket  string // names it among the painter's, so that one can ask how far it is, and end it
	Args    []byte
	// Apart says that it goes on when nobody waits for it; another of the same ticket is the same job.
	Apart bool
}

// Why a job did not come to its end.
var (
	ErrMany   = errors.New("too many jobs of the painter's began after it")
	ErrNoTurn = errors.New("the turn of the job did not come")
	ErrLost   = errors.New("the job was lost by every process that tried it")
	// ErrStopped says that this process takes no more.
	ErrStopped = errors.New("this process is stopping")
	errLeft    = errors.New("nobody waits for it any more")
)

// MostOfPainter is how many jobs of one line a painter may have: one more ends the oldest.
const MostOfPainter = 4

// How long a job may wait for its turn; how often a process that works on one says that it is there, and after what silence
// another takes it over; how often whoever asked says so, and after what silence nobody is thought to wait; and how long an end is
// kept for those who may still ask.
const (
	turnTime   = 2 * time.Minute
	beatEvery  = time.Second
	beatLost   = 5 * time.Second
	askEvery   = time.Second
	askLost    = 10 * time.Second
	endKept    = time.Hour
	mostTries  = 3
	tidyEvery  = 2 * time.Second
	answerTime = 5 * time.Second // of the database
)

// connections is how many a process holds for its jobs.
const connections = 8

// New makes the queue of a store. Kinds are said before anything is asked for; hands is how many jobs of each line this process
// does at once, none where it only asks.
func New(s *store.Store, hands map[Line]int, log *slog.Logger) *Queue {
	return &Queue{store: s, log: log, kinds: map[string]kind{}, hands: hands, waiters: map[int64][]chan struct{}{}, running: map[int64]context.CancelCauseFunc{}}
}

// Handle says how the jobs of a kind are done, how long one may take, and in which line they wait. What was said first counts.
func (q *Queue) Handle(name string, line Line, limit time.Duration, work Work) {
	if _, said := q.kinds[name]; !said {
		q.kinds[name] = kind{line, limit, work}
	}
}

// Do asks for a job and waits for its result, or until the context ends: then the job does too, unless it is one apart. The error
// is what the job was refused with, ErrMany, ErrNoTurn, ErrLost, context.Canceled, or that of the database.
func (q *Queue) Do(ctx context.Context, j Job) ([]byte, error) {
	id, err := q.Begin(ctx, j)
	if err != nil {
		return nil, err
	}
	return q.wait(ctx, id, j.Apart)
}

// Begin asks for a job and does not wait for it.
func (q *Queue) Begin(ctx context.Context, j Job) (id int64, err error) {
	if err := q.Start(ctx); err != nil {
		return 0, err
	}
	of, known := q.kinds[j.Kind]
	if !known {
		return 0, fmt.Errorf("no job is of the kind %q", j.Kind)
	}
	err = q.tx(ctx, func(tx pgx.Tx) error {
		l, err := lock(ctx, tx, j.Painter, of.line)
		if err != nil {
			return err
		}
		if j.Apart {
			switch err := tx.QueryRow(ctx, "select id from jobs where painter_id = $1 and line = $2 and kind = $3 and ticket = $4 and state <> 'done' and asked_at is null", j.Painter, of.line, j.Kind, j.Ticket).Scan(&id); {
			case err == nil:
				return nil
			case !errors.Is(err, pgx.ErrNoRows):
				return err
			}
		}
		// Those that stand too far back give way.
		if err := l.end(ctx, tx, "many", "and id in (select id from jobs where painter_id = $1 and line = $2 and state <> 'done' order by id desc offset $4)", MostOfPainter-1); err != nil {
			return err
		}
		err = tx.QueryRow(ctx, `insert into jobs (painter_id, line, kind, ticket, args, asked_at)
			values ($1, $2, $3, $4, $5, case when $6 then null else now() end) returning id`, j.Painter, of.line, j.Kind, j.Ticket, append([]byte{}, j.Args...), j.Apart).Scan(&id)
		if err != nil || l.turn != nil {
			return err
		}
		return q.giveTurn(ctx, tx, l)
	})
	return id, err
}

// wait waits for the end of a job.
func (q *Queue) wait(ctx context.Context, id int64, apart bool) ([]byte, error) {
	look, done := q.await(id)
	defer done()
	began, answered := time.Now(), time.Now()
	for {
		var state, ended string
		var result []byte
		err := q.ask(ctx, func(ctx context.Context) error {
			return q.pool.QueryRow(ctx, `update jobs set asked_at = case when asked_at is null then null else now() end
				where id = $1 returning state, ended, result`, id).Scan(&state, &ended, &result)
		})
		switch {
		case ctx.Err() != nil:
			if !apart {
				q.leave(ctx, id)
			}
			return nil, context.Cause(ctx)
		case errors.Is(err, pgx.ErrNoRows):
			return nil, context.Canceled // it was ended
		case err != nil && time.Since(answered) > askLost:
			return nil, err
		case err != nil: // the database is away for a moment
		case state == "done":
			if !apart {
				q.leave(ctx, id)
			}
			return result, why(ended)
		case state == "waiting" && time.Since(began) > turnTime && !apart:
			q.leave(ctx, id)
			return nil, ErrNoTurn
		}
		if err == nil {
			answered = time.Now()
		}
		select {
		case <-look:
		case <-time.After(askEvery):
		case <-ctx.Done():
		}
	}
}

// why is the error of an end.
func why(ended string) error {
	switch ended {
	case "":
		return nil
	case "many":
		return ErrMany
	case "lost":
		return ErrLost
	}
	return errors.New(ended)
}

// leave ends a job, whatever came of it, for nobody waits for it any more.
func (q *Queue) leave(ctx context.Context, id int64) {
	_ = q.ask(context.WithoutCancel(ctx), func(ctx context.Context) error { // else it goes when nobody has asked for a while
		_, err := q.pool.Exec(ctx, "with ends as (delete from jobs where id = $1 returning id) "+tellEnds, id)
		return err
	})
}

// State is what is known of a job.
type State struct {
	Progress // while it is under way
	Args     []byte
	Under    bool   // it has not ended
	Result   []byte // what came of it
	Err      error  // or why nothing did
}

// Look is the painter's last job of a kind and ticket; false where there is none.
func (q *Queue) Look(ctx context.Context, painter int64, kind, ticket string) (at State, known bool, err error) {
	if err := q.open(); err != nil {
		return at, false, err
	}
	var id int64
	var line, state, ended string
	err = q.ask(ctx, func(ctx context.Context) error {
		return q.pool.QueryRow(ctx, `select id, line, args, state, stage, done, of_all, ended, result from jobs
			where painter_id = $1 and kind = $2 and ticket = $3 order by id desc limit 1`, painter, kind, ticket).
			Scan(&id, &line, &at.Args, &state, &at.Stage, &at.Done, &at.Of, &ended, &at.Result)
	})
	switch {
	case errors.Is(err, pgx.ErrNoRows):
		return at, false, nil
	case err != nil:
		return at, false, err
	case state == "done":
		at.Progress, at.Err = Progress{}, why(ended)
		return at, true, nil
	case state == "waiting":
		at.Stage = Queued
		err = q.ask(ctx, func(ctx context.Context) error {
			return q.pool.QueryRow(ctx, `select count(*) filter (where id <= $2), count(*) from jobs where line = $1 and state = 'waiting'`, line, id).Scan(&at.Done, &at.Of)
		})
	}
	at.Under = true
	return at, true, err
}

// End ends the painter's jobs of a kind and ticket, and forgets what came of them.
func (q *Queue) End(ctx context.Context, painter int64, kind, ticket string) error {
	if err := q.open(); err != nil {
		return err
	}
	return q.ask(ctx, func(ctx context.Context) error {
		_, err := q.pool.Exec(ctx, "with ends as (delete from jobs where painter_id = $1 and kind = $2 and ticket = $3 returning id) "+tellEnds, painter, kind, ticket)
		return err
	})
}

// Count is how many jobs of all processes are worked on, and how many wait.
func (q *Queue) Count(ctx context.Context) (underWay, waiting int, err error) {
	if err := q.open(); err != nil {
		return 0, 0, err
	}
	err = q.ask(ctx, func(ctx context.Context) error {
		return q.pool.QueryRow(ctx, "select count(*) filter (where state = 'running'), count(*) filter (where state = 'waiting') from jobs where state <> 'done'").Scan(&underWay, &waiting)
	})
	return underWay, waiting, err
}

// ask asks the database for something that it answers at once.
func (q *Queue) ask(ctx context.Context, question func(context.Context) error) error {
	ctx, cancel := context.WithTimeout(ctx, answerTime)
	defer cancel()
	return question(ctx)
}

// tx does something all or not at all.
func (q *Queue) tx(ctx context.Context, do func(pgx.Tx) error) error {
	return q.ask(ctx, func(ctx context.Context) error {
		return pgx.BeginFunc(ctx, q.pool, do)
	})
}

// await lets a job be looked at when something is heard of it, until done is called.
func (q *Queue) await(id int64) (look <-chan struct{}, done func()) {
	c := make(chan struct{}, 1)
	q.mu.Lock()
	defer q.mu.Unlock()
	q.waiters[id] = append(q.waiters[id], c)
	return c, func() {
		q.mu.Lock()
		defer q.mu.Unlock()
		all := q.waiters[id]
		for i := range all {
			if all[i] == c {
				all = append(all[:i:i], all[i+1:]...)
				break
			}
		}
		if q.waiters[id] = all; len(all) == 0 {
			delete(q.waiters, id)
		}
	}
}

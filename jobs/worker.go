package jobs

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"runtime/debug"
	"strconv"
	"sync"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverpgxv5"
)

// channel is where the processes tell each other of jobs that have ended, by their ids.
const channel = "gyrophane_job"

// open makes the pool of connections, once.
func (q *Queue) open() error {
	q.mu.Lock()
	defer q.mu.Unlock()
	if q.pool != nil {
		return nil
	}
	pool, err := q.store.Pool(connections)
	q.pool = pool
	return err
}

// Start lets this process take turns, unless it does already. It fails where the database is not there, and may be tried again.
func (q *Queue) Start(ctx context.Context) error {
	if err := q.open(); err != nil {
		return err
	}
	q.mu.Lock()
	defer q.mu.Unlock()
	switch {
	case q.stopped:
		return ErrStopped
	case q.client != nil:
		return nil
	}
	config := &river.Config{
		FetchCooldown:               10 * time.Millisecond,
		FetchPollInterval:           time.Second,
		JobTimeout:                  -1, // each kind has its own
		CompletedJobRetentionPeriod: endKept,
		DiscardedJobRetentionPeriod: endKept,
		Logger:                      slog.New(onlyErrors{q.log.Handler()}),
	}
	if len(q.hands) > 0 {
		config.Queues, config.Workers = map[string]river.QueueConfig{}, river.NewWorkers()
		river.AddWorker(config.Workers, &worker{q: q})
		for line, hands := range q.hands {
			config.Queues[string(line)] = river.QueueConfig{MaxWorkers: hands}
		}
	}
	client, err := river.NewClient(riverpgxv5.New(q.pool), config)
	if err != nil {
		return err
	}
	// It lives as long as the process, and not as long as whoever asked first.
	living, end := context.WithCancel(context.WithoutCancel(ctx))
	if len(q.hands) > 0 {
		if err := client.Start(living); err != nil {
			end()
			return err
		}
	}
	q.client, q.end = client, end
	go q.store.Hear(living, channel, q.lookAtAll, q.heard)
	go func() {
		tick := time.NewTicker(tidyEvery)
		defer tick.Stop()
		for {
			select {
			case <-living.Done():
				return
			case <-tick.C:
				_ = q.tidy(living) // it is tried again soon
			}
		}
	}()
	return nil
}

// onlyErrors leaves out what the library says of its own doings.
type onlyErrors struct{ slog.Handler }

func (onlyErrors) Enabled(_ context.Context, level slog.Level) bool { return level >= slog.LevelError }

// Stop takes no more turns; what is under way goes back into the line for another process.
func (q *Queue) Stop(ctx context.Context) error {
	q.mu.Lock()
	client, end, pool := q.client, q.end, q.pool
	q.stopped = true
	q.mu.Unlock()
	var err error
	if client != nil {
		err = client.StopAndCancel(ctx)
		end()
	}
	if pool != nil {
		pool.Close()
	}
	return err
}

// heard looks at a job that has ended: whoever waits for it does so, and where it is worked on nobody does any more.
func (q *Queue) heard(said string) {
	id, err := strconv.ParseInt(said, 10, 64)
	if err != nil {
		return
	}
	q.mu.Lock()
	defer q.mu.Unlock()
	q.look(id)
	if end := q.running[id]; end != nil {
		end(errLeft)
	}
}

func (q *Queue) lookAtAll() {
	q.mu.Lock()
	defer q.mu.Unlock()
	for id := range q.waiters {
		q.look(id)
	}
}

// look lets those who wait for a job look at it; the lock is held.
func (q *Queue) look(id int64) {
	for _, c := range q.waiters[id] {
		select {
		case c <- struct{}{}:
		default:
		}
	}
}

// worker takes a painter's turn.
type worker struct {
	river.WorkerDefaults[turn]
	q *Queue
}

// Work does the oldest job of a lane.
func (w *worker) Work(ctx context.Context, r *river.Job[turn]) error {
	q, l := w.q, lane{painter: r.Args.Painter, line: r.Args.Line}
	one, err := q.claim(ctx, r, l)
	if err != nil || one == nil {
		return err
	}
	begun := time.Now()
	result, err := q.do(ctx, one)
	if q.Done != nil {
		q.Done(one.kind, one.waited, time.Since(begun))
	}
	finish := context.WithoutCancel(ctx)
	return q.tx(finish, func(tx pgx.Tx) error {
		of, err2 := lock(finish, tx, l.painter, l.line)
		if err2 != nil {
			return err2
		}
		mine := of.turn != nil && *of.turn == r.ID
		switch {
		case mine && ctx.Err() != nil && err != nil: // this process ends, and another goes on
			_, err2 = tx.Exec(finish, "update jobs set state = 'waiting', beat_at = null where id = $1 and state = 'running'", one.id)
		default:
			ended := ""
			if err != nil {
				ended = err.Error()
			}
			_, err2 = tx.Exec(finish, `with ends as (update jobs set state = 'done', ended = $2, result = $3, ended_at = now()
				where id = $1 and state <> 'done' returning id) `+tellEnds, one.id, ended, result)
		}
		if err2 != nil {
			return err2
		}
		if mine {
			if err := q.next(finish, tx, of); err != nil {
				return err
			}
		}
		_, err2 = river.JobCompleteTx[*riverpgxv5.Driver](finish, tx, r)
		return err2
	})
}

// claimed is a job that this process works on.
type claimed struct {
	id, painter int64
	kind        string
	args        []byte
	waited      time.Duration
}

// claim takes the oldest job of a lane; nil where there is none, or the turn was given to another.
func (q *Queue) claim(ctx context.Context, r *river.Job[turn], l lane) (one *claimed, err error) {
	err = q.tx(ctx, func(tx pgx.Tx) error {
		of, err := lock(ctx, tx, l.painter, l.line)
		if err != nil {
			return err
		}
		if of.turn != nil && *of.turn == r.ID {
			got, waited := claimed{painter: l.painter}, 0.0
			switch err := tx.QueryRow(ctx, `update jobs set state = 'running', tries = tries + 1, beat_at = now(), stage = '', done = 0, of_all = 0
				where id = (select min(id) from jobs where painter_id = $1 and line = $2 and state = 'waiting') returning id, kind, args, extract(epoch from now() - created_at)::float8`, l.painter, l.line).
				Scan(&got.id, &got.kind, &got.args, &waited); {
			case err == nil:
				got.waited = time.Duration(waited * float64(time.Second))
				one = &got
				return nil
			case !errors.Is(err, pgx.ErrNoRows):
				return err
			}
			if err := q.next(ctx, tx, of); err != nil {
				return err
			}
		}
		_, err = river.JobCompleteTx[*riverpgxv5.Driver](ctx, tx, r)
		return err
	})
	return one, err
}

// do works on a job, says meanwhile that it is worked on, and ends when that is not wanted any more.
func (q *Queue) do(ctx context.Context, one *claimed) (result []byte, err error) {
	of, known := q.kinds[one.kind]
	if !known {
		return nil, fmt.Errorf("this version knows no job of the kind %q", one.kind)
	}
	ctx, end := context.WithCancelCause(ctx)
	defer end(nil)
	q.mu.Lock()
	q.running[one.id] = end
	q.mu.Unlock()
	defer func() {
		q.mu.Lock()
		delete(q.running, one.id)
		q.mu.Unlock()
	}()
	limited, cancel := context.WithTimeout(ctx, of.limit)
	defer cancel()
	var at struct {
		sync.Mutex
		Progress
		told Progress
	}
	report := func(p Progress) {
		at.Lock()
		defer at.Unlock()
		if p.Stage != at.Stage || p.Done > at.Done { // the farthest of what is told
			at.Progress = p
		}
	}
	beating := make(chan struct{})
	go func() {
		defer close(beating)
		tick := time.NewTicker(beatEvery / 4)
		defer tick.Stop()
		last := time.Now()
		for {
			select {
			case <-limited.Done():
				return
			case <-tick.C:
			}
			at.Lock()
			now, news := at.Progress, at.Progress != at.told
			at.told = now
			at.Unlock()
			if !news && time.Since(last) < beatEvery {
				continue
			}
			last = time.Now()
			var still int64
			err := q.ask(limited, func(ctx context.Context) error {
				return q.pool.QueryRow(ctx, "update jobs set beat_at = now(), stage = $2, done = $3, of_all = $4 where id = $1 and state = 'running' returning id", one.id, now.Stage, now.Done, now.Of).Scan(&still)
			})
			if errors.Is(err, pgx.ErrNoRows) {
				end(errLeft)
				return
			}
		}
	}()
	defer func() {
		if e := recover(); e != nil {
			q.log.Error("panic in a job", "kind", one.kind, "error", e, "stack", string(debug.Stack()))
			err = errors.New("it came to grief")
		}
		cancel()
		<-beating
	}()
	return of.work(limited, one.painter, one.args, report)
}

package jobs

import (
	"context"
	"fmt"

	"github.com/jackc/pgx/v5"
	"github.com/riverqueue/river"
)

// lane is a painter's place in a line. All that changes what its turn is happens while its row is locked.
type lane struct {
	painter int64
	line    Line
	turn    *int64 // the job of the library that is its turn; nil where it has none
}

// lock locks a painter's lane, and makes it where it is not there.
func lock(ctx context.Context, tx pgx.Tx, painter int64, line Line) (l lane, err error) {
	l = lane{painter: painter, line: line}
	err = tx.QueryRow(ctx, `insert into lanes (painter_id, line) values ($1, $2)
		on conflict (painter_id, line) do update set line = excluded.line returning turn`, painter, line).Scan(&l.turn)
	return l, err
}

// tellEnds tells all processes which jobs have ended.
const tellEnds = `select pg_notify('` + channel + `', id::text) from ends`

// end ends those of the lane's jobs for which a condition holds, whose own arguments begin at $4.
func (l lane) end(ctx context.Context, tx pgx.Tx, because, condition string, args ...any) error {
	_, err := tx.Exec(ctx, `with ends as (update jobs set state = 'done', ended = $3, ended_at = now()
		where painter_id = $1 and line = $2 and state <> 'done' `+condition+` returning id) `+tellEnds, append([]any{l.painter, l.line, because}, args...)...)
	return err
}

// turn is a painter's turn in a line, as the library keeps it: behind all that others have already.
type turn struct {
	Painter int64 `json:"painter"`
	Line    Line  `json:"line"`
}

// Kind names it to the library.
func (turn) Kind() string { return "turn" }

// giveTurn puts the lane at the end of its line.
func (q *Queue) giveTurn(ctx context.Context, tx pgx.Tx, l lane) error {
	// A turn is tried once: what is lost with a process is found by its lane, and not by the library.
	put, err := q.client.InsertTx(ctx, tx, turn{l.painter, l.line}, &river.InsertOpts{Queue: string(l.line), MaxAttempts: 1})
	if err != nil {
		return err
	}
	_, err = tx.Exec(ctx, "update lanes set turn = $3 where painter_id = $1 and line = $2", l.painter, l.line, put.Job.ID)
	return err
}

// next lets the lane take another turn where something waits in it, and none otherwise.
func (q *Queue) next(ctx context.Context, tx pgx.Tx, l lane) error {
	var waits bool
	if err := tx.QueryRow(ctx, "select exists (select from jobs where painter_id = $1 and line = $2 and state = 'waiting')", l.painter, l.line).Scan(&waits); err != nil {
		return err
	}
	if waits {
		return q.giveTurn(ctx, tx, l)
	}
	_, err := tx.Exec(ctx, "update lanes set turn = null where painter_id = $1 and line = $2", l.painter, l.line)
	return err
}

// tidy gives back what was lost with processes that died, ends what nobody waits for, and lets go of what ended long ago.
func (q *Queue) tidy(ctx context.Context) error {
	return q.tx(ctx, func(tx pgx.Tx) error {
		_, err := tx.Exec(ctx, "with ends as (delete from jobs where asked_at < now() - $1 * interval '1 second' returning id) "+tellEnds, askLost.Seconds())
		if err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, "delete from jobs where state = 'done' and ended_at < now() - $1 * interval '1 second'", endKept.Seconds()); err != nil {
			return err
		}
		rows, err := tx.Query(ctx, `select l.painter_id, l.line from lanes l left join river_job r on r.id = l.turn
			where exists (select from jobs j where j.painter_id = l.painter_id and j.line = l.line and j.state <> 'done')
			and (r.id is null or r.finalized_at is not null or r.state = 'running' and r.attempted_at < now() - $1 * interval '1 second'
				and not exists (select from jobs j where j.painter_id = l.painter_id and j.line = l.line and j.state = 'running' and j.beat_at > now() - $1 * interval '1 second'))
			for update of l skip locked`, beatLost.Seconds())
		if err != nil {
			return err
		}
		lost, err := pgx.CollectRows(rows, func(r pgx.CollectableRow) (l lane, err error) { return l, r.Scan(&l.painter, &l.line) })
		if err != nil {
			return err
		}
		for _, l := range lost {
			if err := l.end(ctx, tx, "lost", "and state = 'running' and tries >= $4", mostTries); err != nil {
				return err
			}
			if _, err := tx.Exec(ctx, "update jobs set state = 'waiting', beat_at = null where painter_id = $1 and line = $2 and state = 'running'", l.painter, l.line); err != nil {
				return err
			}
			if err := q.next(ctx, tx, l); err != nil {
				return fmt.Errorf("give a turn again: %w", err)
			}
		}
		return nil
	})
}

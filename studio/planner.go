package studio

import (
	"context"
	"sync"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"

	"gyrophane/core/bench"
	"gyrophane/jobs"
)

// Planner works the exact plan of a sheet out. Work that was begun goes on when whoever asked
// has left; the same sheet is worked out once, whoever asks for it.
type Planner interface {
	// Plan waits for the plan for as long as ctx allows; the error is then its own. Asker is
	// whose turn it takes.
	Plan(ctx context.Context, asker string, sheet *bench.Sheet, set bench.Settings) (*bench.Plan, error)
}

// How long the exact plan is waited for before the one that is found at once stands in.
const (
	PlanWait  = 2 * time.Second // by somebody who looks at it
	paperWait = 4 * time.Second // before it is printed
	beginWait = time.Second     // before a sitting begins
	planTime  = time.Minute     // in all, by what goes on in the background
)

// planKept is how many worked plans are remembered, some kilobytes each.
const planKept = 500

// planQueue plans in memory, one sheet after the other: askers take turns, and each asker's
// sheets go in the order in which they were asked for. Of too many the one that was asked for first
// gives way, for its page has gone on.
type planQueue struct {
	mu      sync.Mutex
	known   *lru.Cache[string, bench.Worked]
	under   map[string]*planning // by key, while it waits or is worked on
	waiting map[string][]*planning
	turns   []string // askers with something waiting, the next first
	workers int      // that are at work
	most    int
	solve   func(*bench.Sheet, bench.Settings) (*bench.Plan, error)
}

// planning is one sheet on its way.
type planning struct {
	key   string
	sheet *bench.Sheet
	set   bench.Settings
	done  chan struct{}
	plan  *bench.Plan // once it is done
	err   error
}

// newPlanQueue is a queue of so many workers.
func newPlanQueue(most int) *planQueue {
	return &planQueue{known: cache[string, bench.Worked](planKept), under: map[string]*planning{}, waiting: map[string][]*planning{}, most: most, solve: bench.New}
}

func (q *planQueue) Plan(ctx context.Context, asker string, sheet *bench.Sheet, set bench.Settings) (*bench.Plan, error) {
	key := bench.Key(sheet, set)
	q.mu.Lock()
	if worked, known := q.known.Get(key); known {
		q.mu.Unlock()
		return bench.Again(sheet, set, worked)
	}
	p := q.under[key]
	if p == nil {
		p = &planning{key: key, sheet: sheet, set: set, done: make(chan struct{})}
		q.under[key] = p
		if len(q.waiting[asker]) == 0 {
			q.turns = append(q.turns, asker)
		}
		q.waiting[asker] = append(q.waiting[asker], p)
		if mine := q.waiting[asker]; len(mine) > jobs.MostOfPainter {
			q.end(mine[0], nil, jobs.ErrNoTurn)
			q.waiting[asker] = mine[1:]
		}
		q.work()
	}
	q.mu.Unlock()
	select {
	case <-p.done:
		if p.err != nil || p.sheet == sheet {
			return p.plan, p.err
		}
		return bench.Again(sheet, set, p.plan.Worked()) // with the asker's own paints
	case <-ctx.Done():
		return nil, ctx.Err()
	}
}

// end says what became of a sheet; the lock is held.
func (q *planQueue) end(p *planning, plan *bench.Plan, err error) {
	p.plan, p.err = plan, err
	delete(q.under, p.key)
	close(p.done)
}

// work lets another worker begin where there is one and something waits; the lock is held.
func (q *planQueue) work() {
	if q.workers >= q.most || len(q.turns) == 0 {
		return
	}
	q.workers++
	go func() {
		q.mu.Lock()
		defer q.mu.Unlock()
		for len(q.turns) > 0 {
			asker := q.turns[0]
			p := q.waiting[asker][0]
			q.turns, q.waiting[asker] = q.turns[1:], q.waiting[asker][1:]
			if len(q.waiting[asker]) > 0 {
				q.turns = append(q.turns, asker) // behind all others
			} else {
				delete(q.waiting, asker)
			}
			q.mu.Unlock()
			plan, err := q.solve(p.sheet, p.set)
			q.mu.Lock()
			if err == nil {
				q.known.Add(p.key, plan.Worked())
			}
			q.end(p, plan, err)
		}
		q.workers--
	}()
}

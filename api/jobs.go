package api

import (
	"context"
	"encoding/json"
	"errors"
	"runtime"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/jobs"
	"gyrophane/studio"
)

// The lines in which longer work waits, besides that of plans.
const (
	searchLine jobs.Line = "searches"
	photoLine  jobs.Line = "photos"
	backupLine jobs.Line = "backups"
)

// hands is how many jobs of each line a process does at once: searches leave half of the cores for what is tapped, a picture takes
// some hundreds of megabytes, and a backup that is taken in keeps the database busy.
var hands = map[jobs.Line]int{searchLine: max(1, runtime.NumCPU()/2), studio.PlanLine: 1, photoLine: 2, backupLine: 1}

// How long the jobs of a line may take once they are worked on.
const (
	searchTime  = studio.SearchTime + 10*time.Second
	photoTime   = time.Minute
	restoreTime = 15 * time.Minute
)

// jobArgs are what an operation is asked.
type jobArgs struct {
	In     json.RawMessage
	Device string // the browser that asks, in words
}

// outcome is what came of an operation: an answer, or what it was refused with.
type outcome struct {
	Out     json.RawMessage `json:",omitempty"`
	Status  int             `json:",omitempty"`
	Refused string          `json:",omitempty"`
}

// reportKey carries how a job says how far it is.
type reportKey struct{}

// report says how far the work of a request is, where it is done as a job.
func report(ctx context.Context, at jobs.Progress) {
	if say, ok := ctx.Value(reportKey{}).(func(jobs.Progress)); ok {
		say(at)
	}
}

// deferred serves an operation that takes longer than about a second: its work is a job, for this process or another, that ends
// with the asker's connection. What its input names it, it can be asked for and ended by.
func deferred[I, O any](s *Server, op huma.Operation, line jobs.Line, limit time.Duration, named func(*I) string, work func(context.Context, *I) (*O, error)) {
	s.jobs.Handle(op.OperationID, line, limit, func(ctx context.Context, id int64, args []byte, say func(jobs.Progress)) ([]byte, error) {
		var asked jobArgs
		in := new(I)
		if err := errors.Join(json.Unmarshal(args, &asked), json.Unmarshal(asked.In, in)); err != nil {
			return nil, err
		}
		p, err := s.store.PainterByID(ctx, id)
		if err == nil {
			ctx = context.WithValue(context.WithValue(context.WithValue(ctx, painterKey{}, p), deviceKey{}, asked.Device), reportKey{}, say)
			var out *O
			if out, err = work(ctx, in); err == nil {
				return answered(out)
			}
		}
		if errors.Is(context.Cause(ctx), context.Canceled) || errors.Is(err, context.Canceled) {
			return nil, err // it was ended, and is not answered
		}
		return s.refused(err)
	})
	register(s, op, func(ctx context.Context, in *I) (*O, error) {
		ctx, done := watched(ctx)
		defer done()
		asked, err := json.Marshal(in)
		if err != nil {
			return nil, err
		}
		from, _ := ctx.Value(deviceKey{}).(string)
		args, err := json.Marshal(jobArgs{asked, from})
		if err != nil {
			return nil, err
		}
		got, err := s.jobs.Do(ctx, jobs.Job{Painter: painter(ctx).ID, Kind: op.OperationID, Ticket: named(in), Args: args})
		if err != nil {
			return nil, err
		}
		out := new(O)
		return out, outcomeOf(got, out)
	})
}

// unnamed is for operations that are asked for once, and waited for.
func unnamed[I any](*I) string { return "" }

// answered is an outcome with an answer.
func answered(out any) ([]byte, error) {
	text, err := json.Marshal(out)
	if err != nil {
		return nil, err
	}
	return json.Marshal(outcome{Out: text})
}

// refused is an outcome with what an error is answered with.
func (s *Server) refused(err error) ([]byte, error) {
	var problem huma.StatusError
	if err = s.refusal(err); !errors.As(err, &problem) {
		return nil, err
	}
	return json.Marshal(outcome{Status: problem.GetStatus(), Refused: problem.Error()})
}

// outcomeOf reads an outcome: its answer into out, or what it was refused with.
func outcomeOf(got []byte, out any) error {
	var came outcome
	if err := json.Unmarshal(got, &came); err != nil {
		return err
	}
	if came.Refused != "" {
		return huma.NewError(came.Status, came.Refused)
	}
	return json.Unmarshal(came.Out, out)
}

// Work lets this process do jobs, also those that another was asked for. It is tried again where the database is not there.
func (s *Server) Work(ctx context.Context) {
	for err := s.jobs.Start(ctx); err != nil && !errors.Is(err, jobs.ErrStopped) && ctx.Err() == nil; err = s.jobs.Start(ctx) {
		select {
		case <-ctx.Done():
		case <-time.After(time.Second):
		}
	}
}

// StopWork lets the jobs of this process go on in another. It is for all listeners of a process.
func (s *Server) StopWork(ctx context.Context) error { return s.jobs.Stop(ctx) }

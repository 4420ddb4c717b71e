package studio

import (
	"context"
	"encoding/json"
	"errors"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/jobs"
	"gyrophane/store"
)

// PlanLine is where sheets wait that are worked out as jobs.
const PlanLine jobs.Line = "plans"

// planKind is what a sheet is as a job.
const planKind = "plan"

// planArgs are a sheet to be worked out, in words that another process understands.
type planArgs struct {
	Key      string // that it has where it is asked for
	Wheel    int64
	Selected wheel.Selection
	Choices  wheel.Choices
	Which    bench.Which
	Named    Named
	Set      bench.Settings
	Medium   string
}

// WorkBy lets sheets be worked out as jobs, by this process or by another.
func (s *Studio) WorkBy(q *jobs.Queue) {
	s.jobs = q
	q.Handle(planKind, PlanLine, planTime, func(ctx context.Context, painter int64, args []byte, _ func(jobs.Progress)) ([]byte, error) {
		var of planArgs
		if err := json.Unmarshal(args, &of); err != nil {
			return nil, err
		}
		var refused input.Error
		if err := s.workOut(ctx, painter, of); !errors.As(err, &refused) {
			return nil, err
		}
		return []byte(refused.Error()), nil
	})
}

// planByJob lets a sheet be worked out and kept; that goes on where ctx ends before. The error is an input.Error where it cannot be
// painted.
func (s *Studio) planByJob(ctx context.Context, painter store.Painter, key string, laid laidOut) error {
	of := laid.of
	of.Set.Medium = paint.Medium{}
	args, err := json.Marshal(planArgs{key, of.Wheel, of.Selected, of.Choices, of.Which, of.Named, of.Set, laid.medium})
	if err != nil {
		return err
	}
	refused, err := s.jobs.Do(ctx, jobs.Job{Painter: painter.ID, Kind: planKind, Ticket: key, Args: args, Apart: true})
	if err == nil && len(refused) > 0 {
		return input.Errorf("%s", refused)
	}
	return err
}

// workOut works a sheet out and keeps its plan, unless the sheet is another now: then it is asked for anew.
func (s *Studio) workOut(ctx context.Context, id int64, of planArgs) error {
	painter, err := s.store.PainterByID(ctx, id)
	if err != nil {
		return err
	}
	in, err := paint.ParseMedium(of.Medium)
	if err != nil {
		return input.Wrap(err)
	}
	system, _, err := s.System(ctx, As(painter), of.Wheel, of.Selected)
	if err != nil {
		return err
	}
	laid, err := s.layOut(ctx, As(painter), Sheet{Wheel: of.Wheel, Selected: of.Selected, System: system, Choices: of.Choices, Which: of.Which, Named: of.Named, Set: of.Set}, in)
	if err != nil {
		return err
	}
	if bench.Key(&laid.sheet, laid.set) != of.Key {
		return nil
	}
	plan, err := bench.New(&laid.sheet, laid.set)
	if err != nil {
		return err
	}
	return s.store.KeepWorked(ctx, id, of.Key, plan.Worked())
}

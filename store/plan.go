package store

import (
	"context"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"gyrophane/core/bench"
)

// WorkedPlan is a plan that was worked out for a painter, by what went into it.
type WorkedPlan struct {
	PainterID int64        `gorm:"primaryKey"`
	Key       string       `gorm:"primaryKey"`
	Plan      bench.Worked `gorm:"serializer:worked"`
	CreatedAt time.Time
}

// PrintedPlan is the mark of the plan that was printed last of a sheet of a wheel.
type PrintedPlan struct {
	PainterID int64  `gorm:"primaryKey"`
	WheelID   int64  `gorm:"primaryKey"`
	Sheet     string `gorm:"primaryKey"`
	Mark      string
	CreatedAt time.Time
}

// mostWorked is how many worked plans are kept of a painter, the last ones.
const mostWorked = 200

// Worked is a plan that was worked out before; ErrNotFound where it was not.
func (s *Store) Worked(ctx context.Context, painter int64, key string) (bench.Worked, error) {
	var out WorkedPlan
	err := s.with(ctx, func(db *gorm.DB) error {
		return known(db.Where("painter_id = ? and key = ?", painter, key).Take(&out).Error)
	})
	return out.Plan, err
}

// KeepWorked keeps a plan that was worked out.
func (s *Store) KeepWorked(ctx context.Context, painter int64, key string, plan bench.Worked) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		if err := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&WorkedPlan{PainterID: painter, Key: key, Plan: plan}).Error; err != nil {
			return err
		}
		newest := tx.Model(&WorkedPlan{}).Select("key").Where("painter_id = ?", painter).Order("created_at desc, key").Limit(mostWorked)
		return tx.Where("painter_id = ? and key not in (?)", painter, newest).Delete(&WorkedPlan{}).Error
	})
}

// Printed keeps the mark of the plan that was printed of a sheet of a painter's wheel.
func (s *Store) Printed(ctx context.Context, painter, wheel int64, sheet, mark string) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&PrintedPlan{PainterID: painter, WheelID: wheel, Sheet: sheet, Mark: mark}).Error
	})
}

// PrintedMark is the mark of the plan that was printed last of a sheet of a painter's wheel;
// empty where none was.
func (s *Store) PrintedMark(ctx context.Context, painter, wheel int64, sheet string) (mark string, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return db.Model(&PrintedPlan{}).Where("painter_id = ? and wheel_id = ? and sheet = ?", painter, wheel, sheet).Limit(1).Pluck("mark", &mark).Error
	})
	return mark, err
}

// TakeOver puts another plan into a painter's sitting, where nothing was told of it yet but
// that it began; taken says whether.
func (s *Store) TakeOver(ctx context.Context, painter, sitting int64, plan SittingPlan) (taken bool, err error) {
	err = s.ofSitting(ctx, painter, sitting, func(tx *gorm.DB) error {
		var told int64
		if err := tx.Model(&SittingEvent{}).Where("sitting_id = ? and painter_id = ? and event_id <> 'begun'", sitting, painter).Count(&told).Error; err != nil || told > 0 {
			return err
		}
		taken = true
		return tx.Model(&Sitting{ID: sitting}).Where("painter_id = ?", painter).Select("plan").Updates(Sitting{Plan: plan}).Error
	})
	return taken, err
}

type keptWorked struct {
	versioned
	Fill   string    `json:"fill"`
	Why    string    `json:"why,omitempty"`
	Moves  [][2]int  `json:"moves"`
	Low    int       `json:"low"`
	Proved bool      `json:"proved"`
	Others [2][2]int `json:"others"` // minutes and washes round the wheel, and by kind
	Asked  int       `json:"asked,omitempty"`
	Late   string    `json:"late,omitempty"`
}

func keepWorked(w bench.Worked) keptWorked {
	out := keptWorked{versioned: workedShape, Fill: string(w.Fill), Why: w.Why, Low: w.Low, Proved: w.Proved, Asked: w.Asked, Late: w.Late,
		Others: [2][2]int{{w.RoundTheWheel.Minutes, w.RoundTheWheel.Washes}, {w.ByKind.Minutes, w.ByKind.Washes}}}
	for _, m := range w.Moves {
		out.Moves = append(out.Moves, [2]int{m.Region, m.Brush})
	}
	return out
}

func (k keptWorked) open() bench.Worked {
	out := bench.Worked{Fill: bench.Fill(k.Fill), Why: k.Why, Low: k.Low, Proved: k.Proved, Asked: k.Asked, Late: k.Late,
		RoundTheWheel: bench.Baseline{Minutes: k.Others[0][0], Washes: k.Others[0][1]}, ByKind: bench.Baseline{Minutes: k.Others[1][0], Washes: k.Others[1][1]}}
	for _, m := range k.Moves {
		out.Moves = append(out.Moves, bench.Move{Region: m[0], Brush: m[1]})
	}
	return out
}

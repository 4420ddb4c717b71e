package store

import (
	"context"
	"fmt"
	"slices"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"gyrophane/core/bench"
)

// Sitting is the painting of a sheet: the plan as it was when it began. What was done is
// in its events.
type Sitting struct {
	ID        int64
	UID       string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID int64
	WheelID   int64 `gorm:"default:null"` // 0 where the wheel is not kept any more
	Name      string
	Plan      SittingPlan `gorm:"serializer:sitting_plan"`
	Ended     bool
	NextTime  string   // what to do otherwise when the wheel is painted again
	SureLight bool     // the painter is sure that it was read in daylight,
	SureTubes []string `gorm:"serializer:json"` // and of these tubes, by the ids of their paints
	CreatedAt time.Time
	UpdatedAt time.Time
}

// SittingEvent is one thing that was done in a sitting, as it was told. It is never
// changed.
type SittingEvent struct {
	SittingID int64  `gorm:"primaryKey"`
	EventID   string `gorm:"primaryKey"`
	PainterID int64
	Arrived   int64       `gorm:"->"` // counts what arrived, of all sittings
	At        time.Time   // by the server's clock
	Device    string      // that told it
	Number    int64       // within the device
	OffsetMS  int64       // of the server's clock over the device's
	Revision  int64       // how many events the device knew of
	Event     bench.Event `gorm:"serializer:sitting_event"`
	CreatedAt time.Time
}

// mostEnds is how often a sitting that holds as many events as it may can be ended.
const mostEnds = 50

// mostSittings is how many a painter keeps.
const mostSittings = 2000

// Sittings lists a painter's sittings, the last one first, without their plans.
func (s *Store) Sittings(ctx context.Context, painter int64) (out []Sitting, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return db.Omit("plan").Where("painter_id = ?", painter).Order("created_at desc, id desc").Find(&out).Error
	})
	return out, err
}

// Sitting is one of a painter's sittings with all that was done in it, in the order in
// which it arrived; ErrNotFound where it is not there, or another painter's.
func (s *Store) Sitting(ctx context.Context, painter, id int64) (out Sitting, events []SittingEvent, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		if err := db.Where("id = ? and painter_id = ?", id, painter).Take(&out).Error; err != nil {
			return known(err)
		}
		return db.Where("sitting_id = ? and painter_id = ?", id, painter).Order("arrived").Find(&events).Error
	})
	return out, events, err
}

// BeginSitting keeps a new sitting.
func (s *Store) BeginSitting(ctx context.Context, painter int64, begun Sitting) (Sitting, error) {
	begun.PainterID = painter
	err := s.owned(ctx, painter, func(tx *gorm.DB) error {
		var n int64
		if err := tx.Model(&Sitting{}).Where("painter_id = ?", painter).Count(&n).Error; err != nil {
			return err
		}
		if n >= mostSittings {
			return Refusal{fmt.Sprintf("%d sittings are as many as are kept: delete some first.", mostSittings)}
		}
		return tx.Create(&begun).Error
	})
	return begun, err
}

// TellSitting keeps what was done in a sitting, all or none; what is there already is
// left as it is. Ended is whether the sitting is over with it.
func (s *Store) TellSitting(ctx context.Context, painter, id int64, told []SittingEvent, ended func(all []SittingEvent) (bool, error)) (all []SittingEvent, err error) {
	err = s.owned(ctx, painter, func(tx *gorm.DB) error {
		var sitting Sitting
		if err := tx.Omit("plan").Where("id = ? and painter_id = ?", id, painter).Take(&sitting).Error; err != nil {
			return known(err)
		}
		for _, e := range told {
			e.SittingID, e.PainterID = id, painter
			if err := tx.Clauses(clause.OnConflict{DoNothing: true}).Omit("Arrived").Create(&e).Error; err != nil {
				return err
			}
		}
		if err := tx.Where("sitting_id = ?", id).Order("arrived").Find(&all).Error; err != nil {
			return err
		}
		counted := 0 // a full sitting can still be ended
		for i := range all {
			if all[i].Event.Kind != bench.Ended {
				counted++
			}
		}
		if counted > bench.MostEvents || len(all) > bench.MostEvents+mostEnds {
			return Refusal{fmt.Sprintf("A sitting holds %d events: end it, and begin another.", bench.MostEvents)}
		}
		over, err := ended(all)
		if err != nil {
			return err
		}
		if err := tx.Model(&sitting).Updates(map[string]any{"ended": over, "updated_at": tx.NowFunc()}).Error; err != nil {
			return err
		}
		return tell(tx, painter, id)
	})
	return all, err
}

// SittingsRead are a painter's sittings in a medium, or in all where it is empty, of which
// something was read dry, but for one, the last ones first, so many at most.
func (s *Store) SittingsRead(ctx context.Context, painter, but int64, medium string, most int) (out []int64, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return db.Model(&SittingReading{}).Where("painter_id = ? and ? in (medium, '') and not wet and doubt = '' and sitting_id <> ?", painter, medium, but).
			Group("sitting_id").Order("sitting_id desc").Limit(most).Pluck("sitting_id", &out).Error
	})
	return out, err
}

// SayNextTime keeps what to do otherwise next time, where it still is what it was when the
// painter looked; the error is a Refusal where it is not.
func (s *Store) SayNextTime(ctx context.Context, painter, id int64, was, says string) error {
	return s.ofSitting(ctx, painter, id, func(tx *gorm.DB) error {
		said := tx.Model(&Sitting{}).Where("id = ? and painter_id = ? and next_time in (?, ?)", id, painter, was, says).Update("next_time", says)
		if said.Error == nil && said.RowsAffected == 0 {
			return Refusal{"What to do next time was changed elsewhere in the meantime: look at it again, what you wrote is still here."}
		}
		return said.Error
	})
}

// SaySure keeps that a painter is sure, or sure no more, of the light that a sitting was read in or, where
// one is named, of a tube.
func (s *Store) SaySure(ctx context.Context, painter, id int64, tube string, sure bool) error {
	return s.ofSitting(ctx, painter, id, func(tx *gorm.DB) error {
		of := tx.Model(&Sitting{}).Where("id = ? and painter_id = ?", id, painter)
		if tube == "" {
			return of.Update("sure_light", sure).Error
		}
		var kept Sitting
		if err := tx.Select("id", "sure_tubes").Where("id = ? and painter_id = ?", id, painter).Take(&kept).Error; err != nil {
			return err
		}
		kept.SureTubes = slices.DeleteFunc(kept.SureTubes, func(t string) bool { return t == tube })
		if sure {
			kept.SureTubes = append(kept.SureTubes, tube)
		}
		kept.UpdatedAt = tx.NowFunc()
		return tx.Model(&kept).Select("sure_tubes", "updated_at").Updates(&kept).Error
	})
}

// DropSitting takes a sitting away with all that belongs to it; ErrNotFound where it is
// not there, or another painter's.
func (s *Store) DropSitting(ctx context.Context, painter, id int64) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		if err := dropKept(tx, &Sitting{}, painter, id); err != nil {
			return err
		}
		return tell(tx, painter, id)
	})
}

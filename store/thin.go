package store

import (
	"time"

	"gorm.io/gorm"
)

// How many versions of one thing are kept: of today all, up to so many; of each
// day before its last, for so many days. What a decision hangs on stays for ever.
const (
	mostOfToday = 400
	mostDays    = 365
)

// past is what thinning must know of a version that a thing has been through.
type past struct {
	ID        int64
	Version   int
	Previous  int // the version that undoing this one returns to, 0 for none
	Stays     bool
	CreatedAt time.Time
}

// thin says which versions go, of all that a thing has been through in their
// order, and which of those that stay return to another one than before, by id.
// The first stays (how it began), and the last (how it is).
func thin(all []past, now time.Time) (gone []int64, returns map[int64]int) {
	day := func(t time.Time) string { return t.UTC().Format(time.DateOnly) }
	today, days := 0, 0
	stays := map[int]bool{}
	instead := map[int]int{} // of what goes: the version before it
	for i := len(all) - 1; i >= 0; i-- {
		v := all[i]
		keep := v.Stays || i == 0 || i == len(all)-1
		if day(v.CreatedAt) == day(now) {
			today++
			keep = keep || today <= mostOfToday
		} else if i == len(all)-1 || day(v.CreatedAt) != day(all[i+1].CreatedAt) {
			days++
			keep = keep || days <= mostDays
		}
		if keep {
			stays[v.Version] = true
			continue
		}
		gone = append(gone, v.ID)
		instead[v.Version] = v.Previous
	}
	returns = map[int64]int{}
	for _, v := range all {
		to := v.Previous
		for before, went := instead[to]; went; before, went = instead[to] {
			to = before
		}
		if stays[v.Version] && to != v.Previous {
			returns[v.ID] = to
		}
	}
	return gone, returns
}

// thinWheel lets versions of a wheel go, under the wheel's lock. Versions that
// predictions were made on stay, and those that something was decided on.
func thinWheel(tx *gorm.DB, w Wheel) error {
	var all []past
	err := tx.Raw(`select v.id, v.version, v.back_to as previous, v.created_at,
			v.decision or exists (select 1 from predictions p where p.wheel_id = v.wheel_id and p.wheel_version = v.version) as stays
		from wheel_versions v where v.wheel_id = ? and v.painter_id = ? and not v.refused order by v.version`, w.ID, w.PainterID).Scan(&all).Error
	if err != nil {
		return err
	}
	return letGo(tx, &WheelVersion{}, "back_to", w.PainterID, all)
}

// thinTube lets versions of a tube go, under the box's lock, and with them what
// was done to the box that none is left of.
func thinTube(tx *gorm.DB, t Tube) error {
	var all []past
	err := tx.Raw(`select id, version, previous, created_at, decision or version = ? as stays
		from tube_versions where tube_id = ? and painter_id = ? and not refused order by version`, t.StandsFor, t.ID, t.PainterID).Scan(&all).Error
	if err != nil {
		return err
	}
	if err := letGo(tx, &TubeVersion{}, "previous", t.PainterID, all); err != nil {
		return err
	}
	return tx.Exec(`delete from box_changes c where painter_id = ? and created_at < ? and not exists (select 1 from tube_versions v where v.change_id = c.id)`,
		t.PainterID, tx.NowFunc().Truncate(24*time.Hour)).Error
}

func letGo(tx *gorm.DB, row any, previous string, painter int64, all []past) error {
	gone, returns := thin(all, tx.NowFunc())
	for id, to := range returns {
		if err := tx.Model(row).Where("id = ? and painter_id = ?", id, painter).Update(previous, to).Error; err != nil {
			return err
		}
	}
	if len(gone) == 0 {
		return nil
	}
	return tx.Where("id in (?) and painter_id = ?", gone, painter).Delete(row).Error
}

package store

import (
	"context"
	"errors"
	"fmt"
	"reflect"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"gyrophane/core/paint"
)

// System is a primary system: which paints play which role.
type System struct {
	ID        int64
	PainterID int64
	Name      string
	Kind      string
	Roles     Snapshot `gorm:"serializer:snapshot"`
	Version   int
	CreatedAt time.Time
	UpdatedAt time.Time
}

// Wheel is a wheel of a system: the paints as they were when it was last
// saved, and how it is looked at.
type Wheel struct {
	ID           int64
	UID          string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID    int64
	SystemID     int64
	WheelContent `gorm:"embedded"`
	Version      int // counts the saves; a save names the one it was made on
	CreatedAt    time.Time
	UpdatedAt    time.Time
}

// WheelContent is what a save of a wheel replaces.
type WheelContent struct {
	Name           string
	Kind           string   // of system
	Snapshot       Snapshot `gorm:"serializer:snapshot"`
	Settings       Settings `gorm:"serializer:settings"`
	Archived       bool
	LibraryVersion string
}

// WheelVersion is a wheel as it once was or, refused, as a save on an outdated
// version would have had it.
type WheelVersion struct {
	ID           int64
	UID          string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID    int64
	WheelID      int64
	Version      int
	BackTo       int // the version that undoing this one returns to, 0 for none
	Refused      bool
	Decision     bool // something was decided on it, so it stays
	WheelContent `gorm:"embedded"`
	CreatedAt    time.Time
}

// WheelConflict says that a wheel was saved elsewhere in the meantime. What could
// not be saved is kept beside it.
type WheelConflict struct {
	Current Wheel
	Kept    WheelVersion
}

func (WheelConflict) Error() string {
	return "this wheel was changed elsewhere in the meantime; both versions are kept"
}

// ErrNothingToUndo says that a wheel is at its first version.
var ErrNothingToUndo = errors.New("nothing to undo")

// Wheels lists a painter's wheels, the last changed first.
func (s *Store) Wheels(ctx context.Context, painter int64) ([]Wheel, error) {
	var wheels []Wheel
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Where("painter_id = ?", painter).Order("updated_at desc, id desc").Find(&wheels).Error
	})
	return wheels, err
}

// Wheel finds one of a painter's wheels.
func (s *Store) Wheel(ctx context.Context, painter, id int64) (Wheel, error) {
	var w Wheel
	err := s.with(ctx, func(db *gorm.DB) (err error) {
		w, err = ownWheel(db, painter, id)
		return err
	})
	return w, err
}

func ownWheel(tx *gorm.DB, painter, id int64) (Wheel, error) {
	var w Wheel
	err := tx.Where("id = ? and painter_id = ?", id, painter).Take(&w).Error
	return w, known(err)
}

// DropWheel takes a wheel away with its system and all of its versions; sittings of it stay, as they were painted.
// ErrNotFound where it is not there, or another painter's.
func (s *Store) DropWheel(ctx context.Context, painter, id int64) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		w, err := ownWheel(tx, painter, id)
		if err != nil {
			return err
		}
		return tx.Where("id = ? and painter_id = ?", w.SystemID, painter).Delete(&System{}).Error // the wheel goes with it
	})
}

// CreateWheel keeps a new triad and its wheel.
func (s *Store) CreateWheel(ctx context.Context, painter int64, c WheelContent) (Wheel, error) {
	var w Wheel
	err := s.owned(ctx, painter, func(tx *gorm.DB) (err error) {
		w, err = createWheel(tx, painter, c)
		return err
	})
	return w, err
}

func createWheel(tx *gorm.DB, painter int64, c WheelContent) (Wheel, error) {
	var err error
	if c.Name, err = CleanName("wheel", c.Name); err != nil {
		return Wheel{}, err
	}
	var n int64
	if err := tx.Model(&Wheel{}).Where("painter_id = ?", painter).Count(&n).Error; err != nil {
		return Wheel{}, err
	}
	if n >= mostWheels {
		return Wheel{}, Refusal{fmt.Sprintf("You keep %d wheels, which is the most.", mostWheels)}
	}
	c.LibraryVersion = paint.LibraryVersion()
	system := System{PainterID: painter, Name: c.Name, Kind: c.Kind, Roles: c.Snapshot, Version: 1}
	if err := tx.Create(&system).Error; err != nil {
		return Wheel{}, err
	}
	w := Wheel{PainterID: painter, SystemID: system.ID, WheelContent: c, Version: 1}
	if err := tx.Create(&w).Error; err != nil {
		return Wheel{}, err
	}
	return w, tx.Create(&WheelVersion{PainterID: painter, WheelID: w.ID, Version: 1, WheelContent: c}).Error
}

// SaveWheel replaces a wheel's content, if it still stands at the version the
// change was made on. If not, the change is kept as a refused version and the
// error is a Conflict. Resolves names a refused version that this save settles,
// or is 0.
func (s *Store) SaveWheel(ctx context.Context, painter, id int64, onVersion int, c WheelContent, resolves int64) (Wheel, error) {
	var err error
	if c.Name, err = CleanName("wheel", c.Name); err != nil {
		return Wheel{}, err
	}
	c.LibraryVersion = paint.LibraryVersion()
	var w Wheel
	var conflict *WheelConflict
	err = s.transaction(ctx, func(tx *gorm.DB) error {
		now, err := lockedWheel(tx, painter, id)
		if err != nil {
			return err
		}
		if same, err := savedBefore(now, onVersion, c); err != nil || same {
			w = now
			return err
		}
		if now.Version != onVersion {
			kept, err := keepRefused(tx, now, onVersion, c)
			conflict = &WheelConflict{now, kept}
			return err
		}
		if resolves != 0 {
			if err := dropRefused(tx, painter, id, resolves); err != nil && !errors.Is(err, ErrNotFound) {
				return err
			}
		}
		w, err = advance(tx, now, c, now.Version, resolves != 0)
		return err
	})
	if err == nil && conflict != nil {
		return Wheel{}, *conflict
	}
	return w, err
}

// UndoWheel takes the last save back, as a new version. Undoing again goes one
// further back.
func (s *Store) UndoWheel(ctx context.Context, painter, id int64, onVersion int) (Wheel, error) {
	var w Wheel
	err := s.transaction(ctx, func(tx *gorm.DB) error {
		now, err := lockedWheel(tx, painter, id)
		if err != nil {
			return err
		}
		if same, err := undoneBefore(tx, now, onVersion); err != nil || same {
			w = now
			return err
		}
		if now.Version != onVersion {
			return Refusal{"This wheel was changed elsewhere in the meantime; look at it again before undoing."}
		}
		last, err := keptVersion(tx, now, now.Version)
		if err != nil {
			return err
		}
		if last.BackTo == 0 {
			return ErrNothingToUndo
		}
		before, err := keptVersion(tx, now, last.BackTo)
		if err != nil {
			return err
		}
		w, err = advance(tx, now, before.WheelContent, before.BackTo, false)
		return err
	})
	return w, err
}

// savedBefore says that a save came once already: its answer was lost, and it was
// sent again.
func savedBefore(now Wheel, onVersion int, c WheelContent) (bool, error) {
	if now.Version != onVersion+1 {
		return false, nil
	}
	return now.WheelContent.same(c)
}

// undoneBefore says that an undoing came once already.
func undoneBefore(tx *gorm.DB, now Wheel, onVersion int) (bool, error) {
	if now.Version != onVersion+1 {
		return false, nil
	}
	undone, err := keptVersion(tx, now, onVersion)
	if err != nil || undone.BackTo == 0 {
		return false, err
	}
	before, err := keptVersion(tx, now, undone.BackTo)
	if err != nil {
		return false, err
	}
	last, err := keptVersion(tx, now, now.Version)
	return last.BackTo == before.BackTo && reflect.DeepEqual(last.WheelContent, before.WheelContent), err
}

// CanUndo says whether a wheel has an earlier version to go back to.
func (s *Store) CanUndo(ctx context.Context, w Wheel) (bool, error) {
	var v WheelVersion
	err := s.with(ctx, func(db *gorm.DB) (err error) {
		v, err = keptVersion(db, w, w.Version)
		return err
	})
	return v.BackTo != 0, err
}

// WheelHistory lists the versions that a wheel has been through, the newest first;
// each keeps its own paints.
func (s *Store) WheelHistory(ctx context.Context, painter, id int64) ([]WheelVersion, error) {
	var out []WheelVersion
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Where("painter_id = ? and wheel_id = ? and not refused", painter, id).Order("version desc").Limit(listedVersions).Find(&out).Error
	})
	return out, err
}

// RefusedWheels lists what could not be saved on a wheel and still waits for the
// painter to choose, the newest first.
func (s *Store) RefusedWheels(ctx context.Context, painter, id int64) ([]WheelVersion, error) {
	var out []WheelVersion
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Where("painter_id = ? and wheel_id = ? and refused", painter, id).Order("id desc").Find(&out).Error
	})
	return out, err
}

// DropRefused lets a refused version go.
func (s *Store) DropRefused(ctx context.Context, painter, id, version int64) error {
	return s.with(ctx, func(db *gorm.DB) error { return dropRefused(db, painter, id, version) })
}

func dropRefused(tx *gorm.DB, painter, id, version int64) error {
	return dropKept(tx.Where("wheel_id = ? and refused", id), &WheelVersion{}, painter, version)
}

// dropKept deletes one of a painter's rows that tx is narrowed to.
func dropKept(tx *gorm.DB, row any, painter, id int64) error {
	done := tx.Where("id = ? and painter_id = ?", id, painter).Delete(row)
	if done.Error == nil && done.RowsAffected == 0 {
		return ErrNotFound
	}
	return done.Error
}

func lockedWheel(tx *gorm.DB, painter, id int64) (Wheel, error) {
	return ownWheel(tx.Clauses(clause.Locking{Strength: "UPDATE"}), painter, id)
}

func keptVersion(tx *gorm.DB, w Wheel, version int) (WheelVersion, error) {
	var v WheelVersion
	err := tx.Where("painter_id = ? and wheel_id = ? and version = ? and not refused", w.PainterID, w.ID, version).Take(&v).Error
	return v, known(err)
}

// advance writes a locked wheel's next version, and its system with it.
func advance(tx *gorm.DB, w Wheel, c WheelContent, backTo int, decision bool) (Wheel, error) {
	w.WheelContent = c
	w.Version++
	err := tx.Select("name", "kind", "snapshot", "settings", "archived", "library_version", "version", "updated_at").
		Where("painter_id = ?", w.PainterID).Updates(&w).Error
	if err != nil {
		return Wheel{}, err
	}
	err = tx.Model(&System{}).Where("id = ? and painter_id = ?", w.SystemID, w.PainterID).
		Select("name", "kind", "roles", "version", "updated_at").
		Updates(&System{Name: c.Name, Kind: c.Kind, Roles: c.Snapshot, Version: w.Version}).Error
	if err != nil {
		return Wheel{}, err
	}
	err = tx.Create(&WheelVersion{PainterID: w.PainterID, WheelID: w.ID, Version: w.Version, BackTo: backTo, Decision: decision, WheelContent: c}).Error
	if err != nil {
		return Wheel{}, err
	}
	return w, thinWheel(tx, w)
}

// keepRefused keeps what could not be saved, and of such the newest twenty.
func keepRefused(tx *gorm.DB, w Wheel, onVersion int, c WheelContent) (WheelVersion, error) {
	v := WheelVersion{PainterID: w.PainterID, WheelID: w.ID, Version: onVersion, Refused: true, WheelContent: c}
	if err := tx.Create(&v).Error; err != nil {
		return WheelVersion{}, err
	}
	newest := tx.Model(&WheelVersion{}).Select("id").Where("wheel_id = ? and painter_id = ? and refused", w.ID, w.PainterID).Order("id desc").Limit(keptRefusedWrites)
	return v, tx.Where("wheel_id = ? and painter_id = ? and refused and id not in (?)", w.ID, w.PainterID, newest).Delete(&WheelVersion{}).Error
}

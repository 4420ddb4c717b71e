package store

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"github.com/jackc/pgx/v5/pgconn"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
)

// RestoredKind is what becomes of the things of one kind that an archive holds.
type RestoredKind struct {
	What    string
	Added   int      // they were not there
	Updated int      // the archive's came later
	Stay    int      // they are as in the archive, or came later than that
	Beside  []string // they went two ways: both are kept; by name
}

// Restored is what restoring an archive does.
type Restored struct {
	Made  string // the name of the painter it was made of
	Kinds []RestoredKind
}

// errOnlyLooked ends a transaction that was to show what it would do.
var errOnlyLooked = errors.New("only looked at")

// RestoreHow says how an archive is restored.
type RestoreHow struct {
	Keep  bool                                            // otherwise it is only said what would become of it
	Photo func(uid string) ([]byte, error)                // the pixels of a photo
	Ended func(SittingPlan, []SittingEvent) (bool, error) // whether a sitting is over with all that was told
	Said  func(done, of int)                              // how many things have been seen to; may be nil
}

// Restore takes what an archive holds into what is kept of a painter, all or nothing. What is known by its id
// is not there twice; of two states the later by its count of changes stays, and where a thing went two ways
// both do. The error is a Refusal where there is no room for it, or an input.Error where it does not hold together.
func (s *Store) Restore(ctx context.Context, painter int64, a *Archive, how RestoreHow) (Restored, error) {
	r := &restoring{painter: painter, from: a, how: how, room: s.Room, free: s.freeDisk, tubes: map[string]string{}, wheels: map[int64]int64{}, photos: map[int64]int64{}, sittings: map[int64]int64{}, rounds: map[int64]int64{}, changes: map[int64]int64{}}
	err := limited(ctx, archiveTime, func(ctx context.Context) error {
		return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
			if err := tx.Clauses(clause.Locking{Strength: "UPDATE"}).Where("id = ?", painter).Take(&Painter{}).Error; err != nil {
				return known(err)
			}
			r.tx = tx
			if err := r.all(); err != nil {
				return err
			}
			if !how.Keep {
				return errOnlyLooked
			}
			return nil
		})
	})
	if errors.Is(err, errOnlyLooked) {
		err = nil
	}
	out := Restored{Made: a.Name}
	for _, k := range r.kinds {
		out.Kinds = append(out.Kinds, *k)
	}
	return out, unfit(err)
}

// unfit says that a database will not have what an archive holds, which is then the archive's fault.
func unfit(err error) error {
	var said *pgconn.PgError
	broken := errors.Is(err, gorm.ErrDuplicatedKey) || errors.Is(err, gorm.ErrForeignKeyViolated) || errors.Is(err, gorm.ErrCheckConstraintViolated)
	if errors.As(err, &said) {
		broken = broken || strings.HasPrefix(said.Code, "22") || strings.HasPrefix(said.Code, "23")
	}
	if !broken {
		return err
	}
	return input.Errorf("the backup holds what cannot be kept, or does not hold together: take another copy of it; nothing was changed")
}

// restoring takes one archive in. What is named by ids of the archive is looked up by those.
type restoring struct {
	tx       *gorm.DB
	painter  int64
	from     *Archive
	how      RestoreHow
	room     Room
	free     func() (uint64, bool)
	kinds    []*RestoredKind
	tubes    map[string]string // refs
	wheels   map[int64]int64
	sittings map[int64]int64
	photos   map[int64]int64
	rounds   map[int64]int64
	changes  map[int64]int64
	stray    string // a tube that is named and not there
	done     int
}

func (r *restoring) all() error {
	if err := r.tx.Exec("select set_config('gyrophane.restoring', 'on', true)").Error; err != nil {
		return err
	}
	used := false // something was there before
	for _, of := range []any{&Tube{}, &Wheel{}, &Sitting{}, &PairGuess{}, &Comparison{}} {
		var n int64
		if err := r.tx.Model(of).Where("painter_id = ?", r.painter).Limit(1).Count(&n).Error; err != nil {
			return err
		}
		used = used || n > 0
	}
	if !used {
		if err := r.tx.Model(&Painter{}).Where("id = ?", r.painter).UpdateColumns(map[string]any{"warm_blue": r.from.WarmBlue, "old_box": r.from.OldBox}).Error; err != nil {
			return err
		}
	}
	for _, step := range []func() error{r.box, r.allWheels, r.allSittings, r.strengths, r.practice, r.marks, r.wanted, r.comparisons, r.within} {
		if err := step(); err != nil {
			return err
		}
		if r.stray != "" {
			return input.Errorf("the backup names %s, and no such tube is in it", input.Clip(r.stray))
		}
	}
	return nil
}

// kind begins the account of a kind of things.
func (r *restoring) kind(what string) *RestoredKind {
	r.kinds = append(r.kinds, &RestoredKind{What: what})
	return r.kinds[len(r.kinds)-1]
}

// seen says that a thing more was seen to.
func (r *restoring) seen() {
	if r.done++; r.how.Said != nil {
		a := r.from
		r.how.Said(r.done, len(a.Tubes)+len(a.Wheels)+len(a.Sittings)+len(a.Takings)+len(a.Guesses)+len(a.Marks)+len(a.Wanted)+len(a.Comparisons))
	}
}

// tube is a paint by its id here.
func (r *restoring) tube(id string) string {
	if !strings.HasPrefix(id, paint.TubePrefix) {
		return id
	}
	to, known := r.tubes[id]
	if !known && r.stray == "" {
		r.stray = id
	}
	return to
}

// vectorOf is the count of changes of a row.
func (r *restoring) vectorOf(table string, id int64) (out VersionVector, err error) {
	var raw string
	if err := r.tx.Raw("select version_vector::text from "+table+" where id = ? and painter_id = ?", id, r.painter).Scan(&raw).Error; err != nil {
		return nil, err
	}
	return parseVector(raw)
}

// count writes the count of changes of a row.
func (r *restoring) count(table string, id int64, v VersionVector) error {
	return r.tx.Exec("update "+table+" set version_vector = ? where id = ? and painter_id = ?", v.text(), id, r.painter).Error
}

// find looks a thing up by its lasting id; found says whether it is there.
func find[T any](r *restoring, uid string) (out T, found bool, err error) {
	got := r.tx.Where("painter_id = ? and uid = ?", r.painter, uid).Limit(1).Find(&out)
	return out, got.RowsAffected > 0, got.Error
}

// within refuses what would be more than is kept of a painter.
func (r *restoring) within() error {
	for _, one := range []struct {
		what  string
		of    any
		where string
		most  int64
	}{
		{"paints in the box", &Tube{}, "state <> 'withdrawn'", mostTubes}, {"paints, those withdrawn among them", &Tube{}, "", mostTubesEver}, {"wheels", &Wheel{}, "", mostWheels}, {"sittings", &Sitting{}, "", mostSittings},
		{"comparisons", &Comparison{}, "", mostComparisons}, {"wanted colours", &WantedColour{}, "", reach.MostWanted}, {"takings of strengths", &Taking{}, "", mostTakings},
	} {
		var n int64
		q := r.tx.Model(one.of).Where("painter_id = ?", r.painter)
		if one.where != "" {
			q = q.Where(one.where)
		}
		if err := q.Count(&n).Error; err != nil {
			return err
		}
		if n > one.most {
			return Refusal{fmt.Sprintf("With what the backup holds there would be %d %s, and %d are kept at most: take some away first, or restore it into another painter. Nothing was changed.", n, one.what, one.most)}
		}
	}
	for _, one := range []struct {
		what, table string
		most        int64
	}{{"events", "sitting_events", bench.MostEvents + mostEnds}, {"readings", "sitting_readings", mostReadings}, {"photos", "sitting_photos", mostPhotos}} {
		var n int64
		if err := r.tx.Raw("select coalesce(max(n), 0) from (select count(*) n from "+one.table+" where painter_id = ? group by sitting_id) c", r.painter).Scan(&n).Error; err != nil {
			return err
		}
		if n > one.most {
			return Refusal{fmt.Sprintf("With what the backup holds a sitting would have %d %s, and %d are kept at most. Nothing was changed.", n, one.what, one.most)}
		}
	}
	return nil
}

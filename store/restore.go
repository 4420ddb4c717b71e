package store

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strings"

	"github.com/jackc/pgx/v5/pgconn"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/journal"
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
	used     bool // something was there before
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
	for _, of := range []any{&Tube{}, &Wheel{}, &Sitting{}, &PairGuess{}, &Comparison{}} {
		var n int64
		if err := r.tx.Model(of).Where("painter_id = ?", r.painter).Limit(1).Count(&n).Error; err != nil {
			return err
		}
		r.used = r.used || n > 0
	}
	if !r.used {
		if err := r.tx.Model(&Painter{}).Where("id = ?", r.painter).UpdateColumn("warm_blue", r.from.WarmBlue).Error; err != nil {
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

func tubeRef(id int64) string { return fmt.Sprintf("%s%d", paint.TubePrefix, id) }

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

// numbers gives the versions of a thing in an archive numbers behind the last of those that are there, but for
// what is there already; what was refused is no version of it.
func numbers[V any](archived, there []V, of func(V) (uid string, number int, refused bool)) (is map[int]int, last int) {
	is = map[int]int{}
	by := map[string]int{}
	for _, v := range there {
		if uid, n, refused := of(v); !refused {
			by[uid], last = n, max(last, n)
		}
	}
	next := last
	for _, v := range archived {
		uid, n, refused := of(v)
		if refused {
			continue
		}
		if here, known := by[uid]; known {
			is[n] = here
			continue
		}
		next = max(next+1, n)
		is[n] = next
	}
	return is, last
}

// box takes in the tubes, with what was done to the box.
func (r *restoring) box() error {
	var before int64
	if err := r.tx.Model(&BoxChange{}).Where("painter_id = ?", r.painter).Count(&before).Error; err != nil {
		return err
	}
	for _, c := range r.from.Changes {
		now, found, err := find[BoxChange](r, c.UID)
		if err != nil {
			return err
		}
		if was := c.ID; found {
			r.changes[was] = now.ID
		} else {
			c.ID, c.PainterID = 0, r.painter
			c.Undone = c.Undone || before > 0 // what was done here is what is undone here
			if err := r.tx.Create(&c).Error; err != nil {
				return err
			}
			r.changes[was] = c.ID
		}
	}
	kind := r.kind("tubes")
	for i := range r.from.Tubes {
		if err := r.oneTube(&r.from.Tubes[i], kind); err != nil {
			return err
		}
		r.seen()
	}
	return nil
}

func (r *restoring) oneTube(a *ArchivedTube, kind *RestoredKind) error {
	now, found, err := find[Tube](r, a.UID)
	if err != nil {
		return err
	}
	ref := tubeRef(a.ID)
	if !found {
		t := a.Tube
		t.ID, t.PainterID, t.Learned = 0, r.painter, nil
		if err := r.tx.Create(&t).Error; err != nil {
			return err
		}
		r.tubes[ref] = tubeRef(t.ID)
		if err := r.tubeVersions(a, t.ID, nil); err != nil {
			return err
		}
		kind.Added++
		return r.count("tubes", t.ID, a.Vector)
	}
	r.tubes[ref] = tubeRef(now.ID)
	vector, err := r.vectorOf("tubes", now.ID)
	if err != nil {
		return err
	}
	order := a.Vector.Against(vector)
	if order == Same && !reflect.DeepEqual(a.TubeContent, now.TubeContent) {
		order = TwoWays
	}
	switch order {
	case Same, Older:
		kind.Stay++
		return waiting(r, a.Versions, func(v TubeVersion) (TubeVersion, bool) {
			refused := v.Refused
			v.ID, v.PainterID, v.TubeID, v.ChangeID = 0, r.painter, now.ID, nil
			return v, refused
		})
	case Newer:
		kind.Updated++
		var there []TubeVersion
		if err := r.tx.Where("tube_id = ? and painter_id = ?", now.ID, r.painter).Order("id").Find(&there).Error; err != nil {
			return err
		}
		if err := r.tubeVersions(a, now.ID, there); err != nil {
			return err
		}
		return r.count("tubes", now.ID, vector.With(a.Vector))
	}
	kind.Beside = append(kind.Beside, cmp.Or(a.Nickname, a.Definition.Name, a.Definition.Library))
	if err := waiting(r, a.Versions, func(v TubeVersion) (TubeVersion, bool) {
		refused := v.Refused
		v.ID, v.PainterID, v.TubeID, v.ChangeID = 0, r.painter, now.ID, nil
		return v, refused
	}); err != nil {
		return err
	}
	kept := TubeVersion{UID: headOf(a), PainterID: r.painter, TubeID: now.ID, Version: now.Version, Refused: true, Content: a.TubeContent}
	if err := r.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&kept).Error; err != nil {
		return err
	}
	return r.count("tubes", now.ID, vector.With(a.Vector))
}

// waiting takes in what could not be saved and waits to be chosen, where it is not there.
func waiting[V any](r *restoring, versions []V, as func(V) (is V, refused bool)) error {
	for _, v := range versions {
		one, refused := as(v)
		if !refused {
			continue
		}
		if err := r.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&one).Error; err != nil {
			return err
		}
	}
	return nil
}

// headOf is the lasting id of the version that a tube of an archive is at.
func headOf(a *ArchivedTube) string {
	for _, v := range a.Versions {
		if !v.Refused && v.Version == a.Version {
			return v.UID
		}
	}
	return ""
}

// tubeVersions puts the versions that a tube of an archive has been through behind those that are there, and the
// tube at the last of them.
func (r *restoring) tubeVersions(a *ArchivedTube, id int64, there []TubeVersion) error {
	is, last := numbers(a.Versions, there, func(v TubeVersion) (string, int, bool) { return v.UID, v.Version, v.Refused })
	known := map[string]bool{}
	for _, v := range there {
		known[v.UID] = true
	}
	for _, v := range a.Versions {
		if known[v.UID] {
			continue
		}
		v.ID, v.PainterID, v.TubeID = 0, r.painter, id
		if v.ChangeID != nil {
			change, known := r.changes[*v.ChangeID]
			if v.ChangeID = &change; !known {
				v.ChangeID = nil
			}
		}
		if !v.Refused {
			if v.Previous != 0 {
				v.Previous = cmp.Or(is[v.Previous], last)
			}
			v.Version = is[v.Version]
		}
		if err := r.tx.Create(&v).Error; err != nil {
			return err
		}
	}
	t := a.Tube
	t.ID, t.Version, t.StandsFor = id, is[a.Version], is[a.StandsFor]
	if t.Version == 0 {
		return input.Errorf("the backup has a tube without the version that it is at")
	}
	return r.tx.Model(&Tube{ID: id}).Where("painter_id = ?", r.painter).Select("nickname", "grade", "tube_ml", "price", "note", "not_sure", "state", "version", "stands_for", "updated_at").UpdateColumns(&t).Error
}

// allWheels takes in the wheels.
func (r *restoring) allWheels() error {
	kind := r.kind("wheels")
	for i := range r.from.Wheels {
		if err := r.oneWheel(&r.from.Wheels[i], kind); err != nil {
			return err
		}
		r.seen()
	}
	return nil
}

// wheelHere is a wheel, or another way of it, that is there.
type wheelHere struct {
	Wheel  `gorm:"embedded"`
	Beside *string `gorm:"column:beside_of"`
	Vector string  `gorm:"column:version_vector"`
}

func (r *restoring) oneWheel(a *ArchivedWheel, kind *RestoredKind) error {
	of := cmp.Or(a.Beside, a.UID)
	var there []wheelHere
	if err := r.tx.Table("wheels").Where("painter_id = ? and (uid = ? or beside_of = ?)", r.painter, of, of).Order("id").Find(&there).Error; err != nil {
		return err
	}
	var later *wheelHere
	for i := range there {
		w := &there[i]
		vector, err := parseVector(w.Vector)
		if err != nil {
			return err
		}
		order := a.Vector.Against(vector)
		if order == Same {
			head, err := keptVersion(r.tx, w.Wheel, w.Version)
			if err != nil {
				return err
			}
			if !slices.ContainsFunc(a.Versions, func(v WheelVersion) bool { return v.UID == head.UID && v.Version == a.Version }) {
				order = TwoWays
			}
		}
		switch order {
		case Same, Older:
			kind.Stay++
			r.wheels[a.ID] = w.ID
			if err := waiting(r, a.Versions, func(v WheelVersion) (WheelVersion, bool) {
				refused := v.Refused
				v.ID, v.PainterID, v.WheelID, v.Snapshot = 0, r.painter, w.ID, v.Snapshot.With(r.tube)
				return v, refused
			}); err != nil {
				return err
			}
			return r.saidOf(a, w.ID, nil)
		case Newer:
			if later == nil {
				later = w
			}
		}
	}
	if later != nil {
		kind.Updated++
		r.wheels[a.ID] = later.ID
		return r.wheelOn(a, later)
	}
	uid, beside := a.UID, a.Beside
	if slices.ContainsFunc(there, func(w wheelHere) bool { return w.UID == uid }) {
		uid, beside = "", of
		kind.Beside = append(kind.Beside, a.Name)
	} else {
		kind.Added++
	}
	return r.newWheel(a, uid, beside)
}

// twoWays is behind the name of a wheel that went another way.
const twoWays = ", the other way"

// called is the content of a wheel, named as another way of one where it is.
func (a *ArchivedWheel) called(beside bool) WheelContent {
	c := a.WheelContent
	if beside && !strings.HasSuffix(c.Name, twoWays) {
		name := []rune(c.Name)
		c.Name = string(name[:min(len(name), longestName-len(twoWays))]) + twoWays
	}
	return c
}

// newWheel adds a wheel with its system.
func (r *restoring) newWheel(a *ArchivedWheel, uid, beside string) error {
	c := a.called(beside != "")
	c.Snapshot = c.Snapshot.With(r.tube)
	system := System{PainterID: r.painter, Name: c.Name, Kind: c.Kind, Roles: c.Snapshot, Version: a.Version, CreatedAt: a.CreatedAt, UpdatedAt: a.UpdatedAt}
	if err := r.tx.Create(&system).Error; err != nil {
		return err
	}
	w := Wheel{UID: uid, PainterID: r.painter, SystemID: system.ID, WheelContent: c, Version: a.Version, CreatedAt: a.CreatedAt, UpdatedAt: a.UpdatedAt}
	if err := r.tx.Create(&w).Error; err != nil {
		return err
	}
	r.wheels[a.ID] = w.ID
	is, err := r.wheelVersions(a, &wheelHere{Wheel: w, Beside: orNil(beside)}, nil)
	if err != nil {
		return err
	}
	if err := r.tx.Exec("update wheels set beside_of = ? where id = ?", orNil(beside), w.ID).Error; err != nil {
		return err
	}
	if err := r.count("wheels", w.ID, a.Vector); err != nil {
		return err
	}
	return r.saidOf(a, w.ID, is)
}

func orNil(text string) *string {
	if text == "" {
		return nil
	}
	return &text
}

// wheelOn takes a wheel on to what the archive has of it.
func (r *restoring) wheelOn(a *ArchivedWheel, w *wheelHere) error {
	var there []WheelVersion
	if err := r.tx.Where("wheel_id = ? and painter_id = ?", w.ID, r.painter).Order("id").Find(&there).Error; err != nil {
		return err
	}
	is, err := r.wheelVersions(a, w, there)
	if err != nil {
		return err
	}
	c := a.called(w.Beside != nil)
	c.Snapshot = c.Snapshot.With(r.tube)
	now := Wheel{ID: w.ID, WheelContent: c, Version: is[a.Version], UpdatedAt: a.UpdatedAt}
	if err := r.tx.Model(&Wheel{ID: w.ID}).Where("painter_id = ?", r.painter).Select("name", "kind", "snapshot", "settings", "archived", "library_version", "version", "updated_at").UpdateColumns(&now).Error; err != nil {
		return err
	}
	if err := r.tx.Model(&System{}).Where("id = ? and painter_id = ?", w.SystemID, r.painter).Select("name", "kind", "roles", "version", "updated_at").
		UpdateColumns(&System{Name: c.Name, Kind: c.Kind, Roles: c.Snapshot, Version: now.Version, UpdatedAt: a.UpdatedAt}).Error; err != nil {
		return err
	}
	vector, err := parseVector(w.Vector)
	if err != nil {
		return err
	}
	if err := r.count("wheels", w.ID, vector.With(a.Vector)); err != nil {
		return err
	}
	return r.saidOf(a, w.ID, is)
}

// wheelVersions puts the versions of a wheel of an archive behind those that are there.
func (r *restoring) wheelVersions(a *ArchivedWheel, w *wheelHere, there []WheelVersion) (is map[int]int, err error) {
	is, last := numbers(a.Versions, there, func(v WheelVersion) (string, int, bool) { return v.UID, v.Version, v.Refused })
	if is[a.Version] == 0 {
		return nil, input.Errorf("the backup has a wheel without the version that it is at: %s", input.Clip(a.Name))
	}
	known := map[string]bool{}
	for _, v := range there {
		known[v.UID] = true
	}
	for _, v := range a.Versions {
		if known[v.UID] {
			continue
		}
		v.ID, v.PainterID, v.WheelID, v.Snapshot = 0, r.painter, w.ID, v.Snapshot.With(r.tube)
		if !v.Refused {
			if v.Version == a.Version {
				v.Name = a.called(w.Beside != nil).Name
			}
			if v.BackTo != 0 {
				v.BackTo = cmp.Or(is[v.BackTo], last)
			}
			v.Version = is[v.Version]
		}
		if err := r.tx.Create(&v).Error; err != nil {
			return nil, err
		}
	}
	return is, nil
}

// saidOf takes in what was predicted and printed of a wheel; is are the numbers of its versions here, nil where
// they must be looked up.
func (r *restoring) saidOf(a *ArchivedWheel, id int64, is map[int]int) error {
	if is == nil {
		var there []WheelVersion
		if err := r.tx.Select("uid", "version").Where("wheel_id = ? and painter_id = ? and not refused", id, r.painter).Find(&there).Error; err != nil {
			return err
		}
		is = map[int]int{}
		for _, v := range there {
			for _, old := range a.Versions {
				if old.UID == v.UID && !old.Refused {
					is[old.Version] = v.Version
				}
			}
		}
	}
	for _, p := range a.Predictions {
		p.ID, p.PainterID, p.WheelID, p.WheelVersion = 0, r.painter, id, is[p.WheelVersion]
		if p.WheelVersion == 0 {
			continue // of a version that was let go here
		}
		if err := r.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&p).Error; err != nil {
			return err
		}
	}
	for _, p := range a.Printed {
		p.PainterID, p.WheelID = r.painter, id
		if err := r.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&p).Error; err != nil {
			return err
		}
	}
	return nil
}

// allSittings takes in the sittings, with what was told and read of them.
func (r *restoring) allSittings() error {
	kind, photos := r.kind("sittings"), r.kind("photos")
	for i := range r.from.Sittings {
		if err := r.oneSitting(&r.from.Sittings[i], kind, photos); err != nil {
			return err
		}
		r.seen()
	}
	return nil
}

func (r *restoring) oneSitting(a *ArchivedSitting, kind, photos *RestoredKind) error {
	now, found, err := find[Sitting](r, a.UID)
	if err != nil {
		return err
	}
	mine := a.Sitting
	mine.Plan = mine.Plan.With(r.tube)
	mine.SureTubes = nil
	for _, id := range a.SureTubes {
		mine.SureTubes = append(mine.SureTubes, r.tube(id))
	}
	if !found {
		mine.ID, mine.PainterID, mine.WheelID = 0, r.painter, r.wheels[a.WheelID]
		if err := r.tx.Create(&mine).Error; err != nil {
			return err
		}
		now = mine
		kind.Added++
		if err := r.count("sittings", now.ID, a.Vector); err != nil {
			return err
		}
	} else if err := r.sittingOn(a, &now, mine, kind); err != nil {
		return err
	}
	r.sittings[a.ID] = now.ID
	told, err := r.events(a, now.ID)
	if err != nil {
		return err
	}
	if found && told > 0 {
		if err := r.endedNow(now); err != nil {
			return err
		}
	}
	if err := r.somePhotos(a, now.ID, photos); err != nil {
		return err
	}
	return r.readings(a, now.ID)
}

// sittingOn takes what a painter says of a sitting on to what the archive has.
func (r *restoring) sittingOn(a *ArchivedSitting, now *Sitting, mine Sitting, kind *RestoredKind) error {
	vector, err := r.vectorOf("sittings", now.ID)
	if err != nil {
		return err
	}
	order := a.Vector.Against(vector)
	if order == Same && (a.NextTime != now.NextTime || a.SureLight != now.SureLight || !slices.Equal(mine.SureTubes, now.SureTubes)) {
		order = TwoWays
	}
	switch order {
	case Same, Older:
		kind.Stay++
		return nil
	case Newer:
		kind.Updated++
		now.NextTime, now.SureLight, now.SureTubes = a.NextTime, a.SureLight, mine.SureTubes
	default:
		kind.Beside = append(kind.Beside, a.Name)
		if a.NextTime != "" && !strings.Contains(now.NextTime, a.NextTime) {
			both := []rune(strings.TrimSpace(now.NextTime + "\n" + a.NextTime))
			now.NextTime = string(both[:min(len(both), bench.LongestNote)])
		}
	}
	if err := r.tx.Model(&Sitting{ID: now.ID}).Where("painter_id = ?", r.painter).Select("next_time", "sure_light", "sure_tubes").UpdateColumns(now).Error; err != nil {
		return err
	}
	return r.count("sittings", now.ID, vector.With(a.Vector))
}

// batch is how many rows are written at once.
const batch = 200

// events takes in what was told of a sitting, and says how much of it was not there.
func (r *restoring) events(a *ArchivedSitting, id int64) (fresh int64, err error) {
	var rows []SittingEvent
	for _, e := range a.Events {
		e.SittingID, e.PainterID, e.Event = id, r.painter, eventWith(e.Event, r.tube)
		rows = append(rows, e)
	}
	if len(rows) == 0 {
		return 0, nil
	}
	made := r.tx.Clauses(clause.OnConflict{DoNothing: true}).Omit("Arrived").CreateInBatches(&rows, batch)
	return made.RowsAffected, made.Error
}

// endedNow looks whether a sitting is over with all that was told of it.
func (r *restoring) endedNow(now Sitting) error {
	var all []SittingEvent
	if err := r.tx.Where("sitting_id = ? and painter_id = ?", now.ID, r.painter).Order("arrived").Find(&all).Error; err != nil {
		return err
	}
	over, err := r.how.Ended(now.Plan, all)
	if err != nil {
		return err
	}
	return r.tx.Model(&Sitting{ID: now.ID}).Where("painter_id = ?", r.painter).UpdateColumn("ended", over).Error
}

func (r *restoring) somePhotos(a *ArchivedSitting, id int64, kind *RestoredKind) error {
	for _, p := range a.Photos {
		var now SittingPhoto
		found := r.tx.Omit("jpeg").Where("painter_id = ? and uid = ?", r.painter, p.UID).Limit(1).Find(&now)
		if found.Error != nil {
			return found.Error
		}
		was := p.ID
		if found.RowsAffected > 0 {
			kind.Stay++
			r.photos[was] = now.ID
			continue
		}
		kind.Added++
		if !r.how.Keep {
			r.photos[was] = was
			continue
		}
		p.ID, p.PainterID, p.SittingID = 0, r.painter, id
		var err error
		if p.JPEG, err = r.how.Photo(p.UID); err != nil {
			return err
		}
		if err := r.room.holds(r.tx, r.painter, int64(len(p.JPEG)), r.free); err != nil {
			return err
		}
		if err := r.tx.Create(&p).Error; err != nil {
			return err
		}
		r.photos[was] = p.ID
	}
	return nil
}

func (r *restoring) readings(a *ArchivedSitting, id int64) error {
	var uids []string
	if err := r.tx.Model(&SittingReading{}).Where("sitting_id = ? and painter_id = ?", id, r.painter).Pluck("uid", &uids).Error; err != nil {
		return err
	}
	there := map[string]bool{}
	for _, uid := range uids {
		there[uid] = true
	}
	var rows []SittingReading
	for _, one := range a.Readings {
		if there[one.UID] {
			continue
		}
		one.ID, one.PainterID, one.SittingID = 0, r.painter, id
		if at, known := r.photos[one.OnPhoto.Photo]; known {
			one.OnPhoto.Photo = at
		} else if one.OnPhoto.Photo > 0 {
			one.OnPhoto.Photo = -one.OnPhoto.Photo // its photo was deleted: no other is taken for it
		}
		rows = append(rows, one)
	}
	if len(rows) == 0 {
		return nil
	}
	return r.tx.Clauses(clause.OnConflict{DoNothing: true}).CreateInBatches(&rows, batch).Error
}

// strengths takes in what was taken into the box. A strength of a tube that has another since, of which the
// archive knows nothing, is kept taken back.
func (r *restoring) strengths() error {
	kind := r.kind("strengths taken")
	inArchive := map[string]bool{}
	for i := range r.from.Takings {
		inArchive[r.from.Takings[i].UID] = true
	}
	var here []Taking
	if err := r.tx.Preload("Strengths").Where("painter_id = ?", r.painter).Order("id").Find(&here).Error; err != nil {
		return err
	}
	since := map[string]bool{} // tubes by ref and media, of which something was taken here that the archive does not know
	for _, t := range here {
		if t.UndoneAt != nil || inArchive[t.UID] {
			continue
		}
		if t.Film != nil {
			since[t.Medium] = true
		}
		for _, s := range t.Strengths {
			since[tubeRef(s.TubeID)] = true
		}
	}
	for i := range r.from.Takings {
		if err := r.oneTaking(&r.from.Takings[i], since, kind); err != nil {
			return err
		}
		r.seen()
	}
	return r.tx.Exec(asLastTaken+"where painter_id = ?", r.painter).Error
}

func (r *restoring) oneTaking(a *ArchivedTaking, since map[string]bool, kind *RestoredKind) error {
	now, found, err := find[Taking](r, a.UID)
	if err != nil {
		return err
	}
	if found {
		vector, err := r.vectorOf("takings", now.ID)
		if err != nil {
			return err
		}
		kind.Stay++
		if a.Vector.Against(vector) == Newer {
			kind.Stay, kind.Updated = kind.Stay-1, kind.Updated+1
			if err := r.tx.Model(&Taking{ID: now.ID}).Where("painter_id = ?", r.painter).UpdateColumn("undone_at", a.UndoneAt).Error; err != nil {
				return err
			}
		}
		return r.count("takings", now.ID, vector.With(a.Vector))
	}
	t := a.Taking
	t.ID, t.PainterID, t.Strengths = 0, r.painter, nil
	if a.SittingID != nil {
		sitting, known := r.sittings[*a.SittingID]
		if t.SittingID = &sitting; !known {
			t.SittingID = nil
		}
	}
	other := t.Film != nil && since[t.Medium]
	for _, s := range a.Strengths {
		other = other || since[r.tube(tubeRef(s.TubeID))]
	}
	kind.Added++
	if other && t.UndoneAt == nil {
		kind.Added--
		kind.Beside = append(kind.Beside, "taken on "+t.CreatedAt.Format("2 January 2006"))
		at := r.tx.NowFunc()
		t.UndoneAt = &at
	}
	if err := r.tx.Omit("Strengths").Create(&t).Error; err != nil {
		return err
	}
	for _, s := range a.Strengths {
		var tube int64
		if _, err := fmt.Sscanf(r.tube(tubeRef(s.TubeID)), paint.TubePrefix+"%d", &tube); err != nil {
			return input.Errorf("the backup has a strength of a tube that is not in it")
		}
		s.TakingID, s.TubeID, s.PainterID = t.ID, tube, r.painter
		if err := r.tx.Create(&s).Error; err != nil {
			return err
		}
	}
	return r.count("takings", t.ID, a.Vector)
}

// practice takes in rounds of practice and guesses.
func (r *restoring) practice() error {
	for _, round := range r.from.Rounds {
		now, found, err := find[Round](r, round.UID)
		if err != nil {
			return err
		}
		was := round.ID
		if found {
			r.rounds[was] = now.ID
			if round.Ended && !now.Ended {
				if err := r.tx.Model(&Round{ID: now.ID}).Where("painter_id = ?", r.painter).UpdateColumn("ended", true).Error; err != nil {
					return err
				}
			}
			continue
		}
		round.ID, round.PainterID = 0, r.painter
		for i, c := range round.Pairs {
			round.Pairs[i] = Couple{r.tube(c.A), r.tube(c.B)}
		}
		if err := r.tx.Create(&round).Error; err != nil {
			return err
		}
		r.rounds[was] = round.ID
	}
	kind := r.kind("guesses")
	for _, g := range r.from.Guesses {
		r.seen()
		_, found, err := find[PairGuess](r, g.UID)
		if err != nil {
			return err
		}
		if found {
			kind.Stay++
			continue
		}
		g.ID, g.PainterID, g.A, g.B, g.Key = 0, r.painter, r.tube(g.A), r.tube(g.B), journal.PairKeyWith(g.Key, r.tube)
		if g.RoundID != nil {
			round, known := r.rounds[*g.RoundID]
			if !known {
				return input.Errorf("the backup has a guess of a round that is not in it")
			}
			g.RoundID = &round
		}
		made := r.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&g)
		if made.Error != nil {
			return made.Error
		}
		kind.Added += int(made.RowsAffected)
		kind.Stay += 1 - int(made.RowsAffected) // it was guessed here too, and one guess counts
	}
	return nil
}

// marks takes in how far pairings have come; of one that went two ways what is here stays.
func (r *restoring) marks() error {
	kind := r.kind("marked pairings")
	for _, m := range r.from.Marks {
		r.seen()
		m.PainterID = r.painter
		a, b := r.tube(m.A), r.tube(m.B)
		c := MarkChange{A: a, B: b}.ordered()
		m.A, m.B = c.A, c.B
		var raw []string
		if err := r.tx.Raw("select version_vector::text from pair_marks where painter_id = ? and a = ? and b = ?", r.painter, m.A, m.B).Scan(&raw).Error; err != nil {
			return err
		}
		vector := VersionVector{}
		if len(raw) > 0 {
			var err error
			if vector, err = parseVector(raw[0]); err != nil {
				return err
			}
			if m.Vector.Against(vector) != Newer {
				kind.Stay++
				continue
			}
			kind.Updated++
		} else {
			kind.Added++
		}
		if err := r.tx.Exec(`insert into pair_marks (painter_id, a, b, mark, updated_at, version_vector) values (?, ?, ?, ?, ?, ?)
			on conflict (painter_id, a, b) do update set mark = excluded.mark, updated_at = excluded.updated_at, version_vector = excluded.version_vector`,
			r.painter, m.A, m.B, m.Mark, m.UpdatedAt, vector.With(m.Vector).text()).Error; err != nil {
			return err
		}
	}
	return nil
}

func (r *restoring) wanted() error {
	kind := r.kind("wanted colours")
	for _, w := range r.from.Wanted {
		r.seen()
		_, found, err := find[WantedColour](r, w.UID)
		if err != nil {
			return err
		}
		if found {
			kind.Stay++
			continue
		}
		kind.Added++
		w.ID, w.PainterID = 0, r.painter
		if err := r.tx.Create(&w).Error; err != nil {
			return err
		}
	}
	return nil
}

// comparisonHere is a comparison, or another way of it, that is there.
type comparisonHere struct {
	Comparison `gorm:"embedded"`
	Vector     string `gorm:"column:version_vector"`
}

func (r *restoring) comparisons() error {
	kind := r.kind("comparisons")
	for i := range r.from.Comparisons {
		r.seen()
		if err := r.oneComparison(&r.from.Comparisons[i], kind); err != nil {
			return err
		}
	}
	return nil
}

func (r *restoring) oneComparison(a *ArchivedComparison, kind *RestoredKind) error {
	c := a.Comparison
	c.PainterID, c.Address = r.painter, addressWith(c.Address, func(id int64) int64 { return r.wheels[id] })
	of := cmp.Or(a.Beside, a.UID)
	var there []comparisonHere
	if err := r.tx.Table("comparisons").Where("painter_id = ? and (uid = ? or beside_of = ?)", r.painter, of, of).Order("id").Find(&there).Error; err != nil {
		return err
	}
	var later *comparisonHere
	for n := range there {
		vector, err := parseVector(there[n].Vector)
		if err != nil {
			return err
		}
		order := a.Vector.Against(vector)
		if order == Same && (c.Note != there[n].Note || c.Decision != there[n].Decision) {
			order = TwoWays
		}
		switch order {
		case Same, Older:
			kind.Stay++
			return nil
		case Newer:
			later = &there[n]
		}
	}
	if later != nil {
		kind.Updated++
		if err := r.tx.Model(&Comparison{ID: later.ID}).Where("painter_id = ?", r.painter).UpdateColumns(map[string]any{"note": c.Note, "decision": c.Decision, "version": max(c.Version, later.Version+1), "updated_at": c.UpdatedAt}).Error; err != nil {
			return err
		}
		return r.count("comparisons", later.ID, a.Vector)
	}
	beside := a.Beside
	c.ID = 0
	if slices.ContainsFunc(there, func(h comparisonHere) bool { return h.UID == c.UID }) {
		kind.Beside = append(kind.Beside, cmp.Or(c.Note, c.Decision, "without words"))
		beside, c.UID, c.Told = of, "", ""
	} else {
		kind.Added++
	}
	if err := r.tx.Create(&c).Error; err != nil {
		return err
	}
	if err := r.tx.Exec("update comparisons set beside_of = ? where id = ?", orNil(beside), c.ID).Error; err != nil {
		return err
	}
	return r.count("comparisons", c.ID, a.Vector)
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

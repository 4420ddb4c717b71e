package store

import (
	"slices"
	"strings"

	"gorm.io/gorm/clause"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

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
			since[paint.TubeID(s.TubeID)] = !s.Kept || since[paint.TubeID(s.TubeID)]
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
		other = other || !s.Kept && since[r.tube(paint.TubeID(s.TubeID))]
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
		tube, is := paint.TubeNumber(r.tube(paint.TubeID(s.TubeID)))
		if !is {
			return input.Errorf("the backup has a strength of a tube that is not in it")
		}
		s.TakingID, s.TubeID, s.PainterID = t.ID, tube, r.painter
		if err := r.tx.Create(&s).Error; err != nil {
			return err
		}
	}
	return r.count("takings", t.ID, a.Vector)
}

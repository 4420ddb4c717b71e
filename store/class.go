package store

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"slices"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
)

// ClassRound is a list of pairings that a class predicts, one after the other, while a teacher lifts their covers.
type ClassRound struct {
	ID        int64
	PainterID int64
	WheelID   *int64
	Called    string
	Spacing   string
	Token     string  // what the address of the round ends in
	Code      *string // short, to be typed, while it is open
	Place     int     // of the pairing that is asked for
	Covered   bool    // its cover lies
	Version   int     // counts the teacher's moves
	OpenedAt  *time.Time
	OpenUntil *time.Time
	EndedAt   *time.Time
	CreatedAt time.Time
}

// ClassQuestion is one pairing of a round.
type ClassQuestion struct {
	ID        int64
	RoundID   int64
	PainterID int64
	Place     int
	Called    string             // the slot, of a wheel
	Face      []byte             // what is shown of it, as it was when the round was made
	Truth     journal.Truth      `gorm:"serializer:truth"`
	Hands     journal.ClassTally `gorm:"serializer:class_tally"` // that the teacher counted
	Tally     journal.ClassTally `gorm:"serializer:class_tally"` // of all, once the cover is lifted
	Lifted    bool
}

// ClassPupil is a phone that has joined a round; whose it is, is not known.
type ClassPupil struct {
	PupilHash []byte `gorm:"primaryKey"`
	RoundID   int64
	JoinedAt  time.Time `gorm:"default:now()"`
}

// ClassGuess is what a phone says of a pairing until the cover is lifted: then it is counted, and goes.
type ClassGuess struct {
	RoundID   int64  `gorm:"primaryKey"`
	Place     int    `gorm:"primaryKey"`
	PupilHash []byte `gorm:"primaryKey"`
	Hue       int    // in the order of colour.HueWords
	Verdict   int    // in the order of paint.ChromaticVerdicts
	Mud       int    // in twentieths of the way; nowhereMud where there is none
}

const nowhereMud = -1

// Of rounds.
const (
	mostClassRounds = 400 // of a painter
	mostPupils      = 500 // of a round
	// classTime is how long a round stays open, at most.
	classTime = 12 * time.Hour
)

// codeLetters are what a code is made of: none that is taken for another, and no vowels, so that there are no words.
const (
	codeLetters = "BCDFGHJKLMNPQRSTVWXZ"
	codeLength  = 6
)

// newCode is a code of a round, drawn evenly.
func newCode() string {
	out := make([]byte, 0, codeLength)
	for len(out) < codeLength {
		var one [1]byte
		_, _ = rand.Read(one[:]) // does not fail
		if n := int(one[0]); n < 256/len(codeLetters)*len(codeLetters) {
			out = append(out, codeLetters[n%len(codeLetters)])
		}
	}
	return string(out)
}

// liveRounds are the rounds that pupils can be in.
func liveRounds(db *gorm.DB) *gorm.DB {
	return db.Where("class_rounds.ended_at is null and (class_rounds.open_until is null or class_rounds.open_until > ?)", db.NowFunc())
}

// NewClassRound keeps a round and its pairings.
func (s *Store) NewClassRound(ctx context.Context, painter int64, r ClassRound, of []ClassQuestion) (ClassRound, error) {
	r.PainterID, r.Version, r.Token, r.Covered = painter, 1, rand.Text(), true
	err := s.owned(ctx, painter, func(tx *gorm.DB) error {
		var n int64
		if err := tx.Model(&ClassRound{}).Where("painter_id = ?", painter).Count(&n).Error; err != nil {
			return err
		}
		if n >= mostClassRounds {
			return Refusal{fmt.Sprintf("You keep %d rounds, which is the most: delete one first.", mostClassRounds)}
		}
		if r.WheelID != nil {
			if _, err := ownWheel(tx, painter, *r.WheelID); err != nil {
				return err
			}
		}
		if err := tidyClasses(tx); err != nil {
			return err
		}
		if err := tx.Create(&r).Error; err != nil {
			return err
		}
		for place := range of {
			of[place].RoundID, of[place].PainterID, of[place].Place = r.ID, painter, place
		}
		return tx.Create(&of).Error
	})
	return r, err
}

// ClassRounds are a painter's rounds, the newest first, and what was asked in them without its face.
func (s *Store) ClassRounds(ctx context.Context, painter int64) (rounds []ClassRound, of map[int64][]ClassQuestion, err error) {
	of = map[int64][]ClassQuestion{}
	err = s.with(ctx, func(db *gorm.DB) error {
		if err := db.Where("painter_id = ?", painter).Order("id desc").Find(&rounds).Error; err != nil {
			return err
		}
		var all []ClassQuestion
		if err := db.Omit("face").Where("painter_id = ?", painter).Order("round_id, place").Find(&all).Error; err != nil {
			return err
		}
		for _, q := range all {
			of[q.RoundID] = append(of[q.RoundID], q)
		}
		return nil
	})
	return rounds, of, err
}

// ClassRoundNow is a round as its teacher sees it.
type ClassRoundNow struct {
	ClassRound
	Counts    ClassCounts
	Questions []ClassQuestion
}

// Open says whether it is open for guesses.
func (r *ClassRound) Open(now time.Time) bool {
	return r.OpenedAt != nil && !r.Over(now)
}

// Over says whether pupils can be in it no more.
func (r *ClassRound) Over(now time.Time) bool {
	return r.EndedAt != nil || r.OpenUntil != nil && !r.OpenUntil.After(now)
}

// ClassRound is one of a painter's rounds.
func (s *Store) ClassRound(ctx context.Context, painter, id int64) (out ClassRoundNow, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		out, err = classRound(db, painter, id)
		return err
	})
	return out, err
}

func classRound(db *gorm.DB, painter, id int64) (out ClassRoundNow, err error) {
	if err := db.Where("id = ? and painter_id = ?", id, painter).Take(&out.ClassRound).Error; err != nil {
		return out, known(err)
	}
	if err := db.Where("round_id = ? and painter_id = ?", id, painter).Order("place").Find(&out.Questions).Error; err != nil {
		return out, err
	}
	out.Counts, err = countsOf(db, out.ClassRound)
	return out, err
}

// ClassCounts are what changes while a class guesses.
type ClassCounts struct {
	Version int // of the round
	Joined  int // phones
	Guessed int // of them, at the pairing that is asked for
}

// ClassCounts are those of one of a painter's rounds.
func (s *Store) ClassCounts(ctx context.Context, painter, id int64) (out ClassCounts, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		var r ClassRound
		if err := db.Where("id = ? and painter_id = ?", id, painter).Take(&r).Error; err != nil {
			return known(err)
		}
		out, err = countsOf(db, r)
		return err
	})
	return out, err
}

func countsOf(db *gorm.DB, r ClassRound) (out ClassCounts, err error) {
	out.Version = r.Version
	return out, db.Raw(`select (select count(*) from class_pupils where round_id = ?) as joined,
		(select count(*) from class_guesses where round_id = ? and place = ?) as guessed`, r.ID, r.ID, r.Place).Row().Scan(&out.Joined, &out.Guessed)
}

// Moves of a teacher in a round.
const (
	OpenRoundMove = "open"  // lets pupils guess
	GoToMove      = "go to" // asks for another pairing
	LiftMove      = "lift"  // lifts the cover of the one that is asked for
	EndMove       = "end"
)

// ClassMoves are all that a teacher does in a round.
var ClassMoves = []string{OpenRoundMove, GoToMove, LiftMove, EndMove}

// MoveClassRound does what a teacher wants, where nobody has moved meanwhile: version says what the teacher saw.
func (s *Store) MoveClassRound(ctx context.Context, painter, id int64, version int, move string, place int) (out ClassRoundNow, err error) {
	err = s.owned(ctx, painter, func(tx *gorm.DB) error {
		var r ClassRound
		if err := tx.Clauses(clause.Locking{Strength: "UPDATE"}).Where("id = ? and painter_id = ?", id, painter).Take(&r).Error; err != nil {
			return known(err)
		}
		if r.Version != version {
			return Refusal{"This round has gone on in the meantime, perhaps in another window. Nothing was changed."}
		}
		now := moment(tx.NowFunc())
		if r.Over(now) {
			return Refusal{"This round is over: make another one."}
		}
		switch move {
		case OpenRoundMove:
			if r.OpenedAt != nil {
				return Refusal{"This round has been opened before."}
			}
			until := now.Add(classTime)
			r.OpenedAt, r.OpenUntil = &now, &until
			if err := tidyClasses(tx); err != nil {
				return err
			}
			if err := freeCode(tx, &r); err != nil {
				return err
			}
		case GoToMove:
			var to ClassQuestion
			err := tx.Select("lifted").Where("round_id = ? and place = ?", id, place).Take(&to).Error
			if errors.Is(err, gorm.ErrRecordNotFound) {
				return Refusal{fmt.Sprintf("This round has no place %d.", place+1)}
			}
			if err != nil {
				return err
			}
			r.Place, r.Covered = place, !to.Lifted
		case LiftMove:
			if !r.Open(now) {
				return Refusal{"Open the round first: nobody can have guessed yet."}
			}
			if err := lift(tx, r); err != nil {
				return err
			}
			r.Covered = false
		case EndMove:
			r.EndedAt, r.Code = &now, nil
			for _, of := range []any{&ClassGuess{}, &ClassPupil{}} {
				if err := tx.Where("round_id = ?", id).Delete(of).Error; err != nil {
					return err
				}
			}
		}
		r.Version++
		if err := tx.Save(&r).Error; err != nil {
			return err
		}
		if err := tellClass(tx, id, classTurned); err != nil {
			return err
		}
		out, err = classRound(tx, painter, id)
		return err
	})
	return out, err
}

// tidyClasses lets go what is left of rounds that are over by themselves: their codes, phones and guesses, whoever made them.
func tidyClasses(tx *gorm.DB) error {
	now := tx.NowFunc()
	if err := tx.Exec("delete from class_pupils where round_id in (select id from class_rounds where open_until <= ?)", now).Error; err != nil {
		return err
	}
	return tx.Exec("update class_rounds set code = null where code is not null and open_until <= ?", now).Error
}

// freeCode gives a round a code that no other has.
func freeCode(tx *gorm.DB, r *ClassRound) error {
	for {
		code := newCode()
		var taken int64
		if err := tx.Model(&ClassRound{}).Where("code = ?", code).Count(&taken).Error; err != nil {
			return err
		}
		if taken == 0 {
			r.Code = &code
			return nil
		}
	}
}

// lift counts what was guessed at the pairing that is asked for, and lets the guesses go.
func lift(tx *gorm.DB, r ClassRound) error {
	var q ClassQuestion
	if err := tx.Omit("face").Where("round_id = ? and place = ?", r.ID, r.Place).Take(&q).Error; err != nil {
		return known(err)
	}
	if q.Lifted {
		return Refusal{"The cover of this pairing has been lifted before."}
	}
	var guesses []ClassGuess
	if err := tx.Where("round_id = ? and place = ?", r.ID, r.Place).Find(&guesses).Error; err != nil {
		return err
	}
	q.Tally = q.Hands
	for _, g := range guesses {
		q.Tally.Count(g.core())
	}
	if err := tx.Where("round_id = ? and place = ?", r.ID, r.Place).Delete(&ClassGuess{}).Error; err != nil {
		return err
	}
	q.Lifted = true
	return tx.Model(&q).Select("tally", "lifted").Updates(&q).Error
}

// core is a guess as the core knows it.
func (g ClassGuess) core() journal.Guess {
	out := journal.Guess{Prediction: journal.Prediction{HueWord: colour.HueWords()[g.Hue], Verdict: paint.ChromaticVerdicts[g.Verdict]}, Mud: journal.MudStart{Nowhere: g.Mud == nowhereMud}}
	if !out.Mud.Nowhere {
		out.Mud.At = float64(g.Mud) / (journal.MudPlaces - 1)
	}
	return out
}

// CountHands keeps what a teacher has counted of a pairing whose cover lies, where nobody has counted meanwhile: was is what the
// teacher saw.
func (s *Store) CountHands(ctx context.Context, painter, id int64, place int, was, hands journal.ClassTally) (out ClassRoundNow, err error) {
	err = s.owned(ctx, painter, func(tx *gorm.DB) error {
		var q ClassQuestion
		if err := tx.Omit("face").Clauses(clause.Locking{Strength: "UPDATE"}).Where("round_id = ? and painter_id = ? and place = ?", id, painter, place).Take(&q).Error; err != nil {
			return known(err)
		}
		if q.Lifted {
			return Refusal{"The cover of this pairing has been lifted: no hands are counted any more."}
		}
		if q.Hands != was && q.Hands != hands { // one that is told again has been kept
			return Refusal{"Hands have been counted in another window meanwhile: these were not kept. Look at what is there, and count on."}
		}
		q.Hands = hands
		if err := tx.Model(&q).Select("hands").Updates(&q).Error; err != nil {
			return err
		}
		if err := tellClass(tx, id, classCounted); err != nil {
			return err
		}
		out, err = classRound(tx, painter, id)
		return err
	})
	return out, err
}

// DropClassRound deletes a round and what was counted in it.
func (s *Store) DropClassRound(ctx context.Context, painter, id int64) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		if err := dropKept(tx, &ClassRound{}, painter, id); err != nil {
			return err
		}
		return tellClass(tx, id, classTurned)
	})
}

// JoinClassRound lets a phone into the round of a token or a code, under a word that it made up; ErrNotFound where there is none.
func (s *Store) JoinClassRound(ctx context.Context, at, pupil string) (token string, err error) {
	err = s.transaction(ctx, func(tx *gorm.DB) error {
		var r ClassRound
		if err := liveRounds(tx).Where("token = ? or code = ?", at, at).Take(&r).Error; err != nil {
			return known(err)
		}
		token = r.Token
		var joined int64
		if err := tx.Model(&ClassPupil{}).Where("round_id = ? and pupil_hash <> ?", r.ID, hashOf(pupil)).Count(&joined).Error; err != nil {
			return err
		}
		if joined >= mostPupils {
			return Refusal{fmt.Sprintf("%d phones have joined this round, which is the most.", mostPupils)}
		}
		did := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&ClassPupil{PupilHash: hashOf(pupil), RoundID: r.ID})
		if did.Error != nil || did.RowsAffected == 0 {
			return did.Error
		}
		return tellClass(tx, r.ID, classCounted)
	})
	return token, err
}

// ClassSeat is what a phone in a round sees of it.
type ClassSeat struct {
	Round    ClassRound
	Of       int // pairings in the round
	Question ClassQuestion
	Said     *journal.Guess // of that pairing; nil where nothing was said, or the cover is lifted
}

// ClassSeat is what a phone sees under its word; ErrNotFound where it is in no round, or the round is over.
func (s *Store) ClassSeat(ctx context.Context, pupil string) (out ClassSeat, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		if out.Round, err = roundOfPupil(db, pupil); err != nil {
			return err
		}
		if err := db.Where("round_id = ? and place = ?", out.Round.ID, out.Round.Place).Take(&out.Question).Error; err != nil {
			return known(err)
		}
		var n int64
		if err := db.Model(&ClassQuestion{}).Where("round_id = ?", out.Round.ID).Count(&n).Error; err != nil {
			return err
		}
		out.Of = int(n)
		var said ClassGuess
		err := db.Where("round_id = ? and place = ? and pupil_hash = ?", out.Round.ID, out.Round.Place, hashOf(pupil)).Take(&said).Error
		if errors.Is(err, gorm.ErrRecordNotFound) {
			return nil
		}
		core := said.core()
		out.Said = &core
		return err
	})
	return out, err
}

// RoundOfPupil is the round that a phone is in; ErrNotFound where it is in none, or the round is over.
func (s *Store) RoundOfPupil(ctx context.Context, pupil string) (id int64, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		r, err := roundOfPupil(db, pupil)
		id = r.ID
		return err
	})
	return id, err
}

// roundOfPupil is the round that a phone is in.
func roundOfPupil(db *gorm.DB, pupil string) (r ClassRound, err error) {
	err = liveRounds(db).Joins("join class_pupils p on p.round_id = class_rounds.id and p.pupil_hash = ?", hashOf(pupil)).Take(&r).Error
	return r, known(err)
}

// ClassGuess keeps what a phone says of the pairing that is asked for, and answers with its round; a guess before it goes. Who
// looks on is to be told by TellClass.
func (s *Store) ClassGuess(ctx context.Context, pupil string, place int, said journal.Guess) (round int64, err error) {
	mud := nowhereMud
	if !said.Mud.Nowhere {
		mud = journal.MudPlace(said.Mud.At)
	}
	err = s.with(ctx, func(db *gorm.DB) error {
		// The round is locked against the teacher's moves: whatever is taken is counted. One statement, for a class guesses at once.
		kept := db.Raw(`insert into class_guesses (round_id, place, pupil_hash, hue, verdict, mud)
			select r.id, r.place, p.pupil_hash, ?, ?, ? from class_rounds r join class_pupils p on p.round_id = r.id
			where p.pupil_hash = ? and r.place = ? and r.covered and r.opened_at is not null and r.ended_at is null and r.open_until > ?
			for key share of r
			on conflict (round_id, place, pupil_hash) do update set hue = excluded.hue, verdict = excluded.verdict, mud = excluded.mud
			returning round_id`,
			slices.Index(colour.HueWords(), said.HueWord), slices.Index(paint.ChromaticVerdicts, said.Verdict), mud, hashOf(pupil), place, db.NowFunc()).Scan(&round)
		if kept.Error != nil || round != 0 {
			return kept.Error
		}
		r, err := roundOfPupil(db, pupil)
		switch {
		case err != nil:
			return err
		case !r.Open(db.NowFunc()):
			return Refusal{"The round has not begun."}
		}
		return Refusal{"The cover was lifted before your guess came, so it was not counted."}
	})
	return round, err
}

// TellClass tells whoever looks on that something was counted in a round.
func (s *Store) TellClass(ctx context.Context, round int64) error {
	return s.with(ctx, func(db *gorm.DB) error { return tellClass(db, round, classCounted) })
}

// classes is the channel on which processes tell each other of rounds: that a teacher has moved, or that something was counted.
const (
	classes      = "gyrophane_class"
	classTurned  = "turned"
	classCounted = "counted"
)

func tellClass(tx *gorm.DB, round int64, what string) error {
	return tx.Exec("select pg_notify(?, ?)", classes, fmt.Sprintf("%d %s", round, what)).Error
}

// ListenClasses hears of rounds in which a teacher has moved, and of those in which something was counted, as Hear does.
func (s *Store) ListenClasses(ctx context.Context, begun func(), heard func(round int64, moved bool)) {
	s.Hear(ctx, classes, begun, func(said string) {
		var round int64
		var what string
		if n, err := fmt.Sscanf(said, "%d %s", &round, &what); err == nil && n == 2 {
			heard(round, what == classTurned)
		}
	})
}

package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"regexp"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/valyala/fasthttp"

	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/files"
	"gyrophane/store"
	"gyrophane/wire"
)

// ClassRounds are the rounds that a painter has made for a class, and how the class saw what it was asked.
type ClassRounds struct {
	Rounds []ClassRoundEntry `json:"rounds" doc:"the newest first"`
	Eyes   []wire.ClassEye   `json:"eyes" doc:"of all rounds, section by section"`
}

// ClassRoundEntry is one of them.
type ClassRoundEntry struct {
	ID       int64           `json:"id"`
	Called   string          `json:"called"`
	Made     time.Time       `json:"made"`
	Wheel    *int64          `json:"wheel" doc:"null where it was deleted"`
	Opened   *time.Time      `json:"opened"`
	Open     bool            `json:"open" doc:"guesses are taken"`
	Ended    bool            `json:"ended"`
	Pairings int             `json:"pairings"`
	Lifted   int             `json:"lifted" doc:"pairings whose cover was lifted"`
	Score    wire.ClassScore `json:"score" doc:"of those"`
}

// ClassRound is a round as its teacher sees it.
type ClassRound struct {
	ID       int64           `json:"id"`
	Called   string          `json:"called"`
	Spacing  string          `json:"spacing" format:"spacing"`
	Token    string          `json:"token" doc:"what the address for pupils ends in; empty where it has ended"`
	Code     string          `json:"code,omitempty" doc:"the same, short, to be typed, while it is open"`
	Opened   bool            `json:"opened" doc:"it was begun"`
	Open     bool            `json:"open" doc:"guesses are taken"`
	Ended    bool            `json:"ended"`
	Place    int             `json:"place" doc:"of the pairing that is asked for"`
	Version  int             `json:"version" doc:"counts the teacher's moves"`
	Joined   int             `json:"joined" doc:"phones in it"`
	Guessed  int             `json:"guessed" doc:"of them, at the pairing that is asked for"`
	Hues     []string        `json:"hues" doc:"the twelve words, in the order of tallies"`
	Pairings []ClassQuestion `json:"pairings"`
}

// ClassQuestion is a pairing of a round; its truth, its look and its tally come once its cover is lifted.
type ClassQuestion struct {
	Called string            `json:"called" doc:"the slot that it fills; empty where it is of no wheel"`
	Face   wire.ClassFace    `json:"face"`
	Hands  wire.ClassTally   `json:"hands" doc:"that the teacher counted"`
	Lifted *wire.ClassLifted `json:"lifted,omitempty"`
	Truth  *wire.ClassTruth  `json:"truth,omitempty"`
	Tally  *wire.ClassTally  `json:"tally,omitempty" doc:"of all"`
	Score  *wire.ClassScore  `json:"score,omitempty"`
}

// togetherAt is the page where a class predicts. The token of the round comes behind a #.
const togetherAt = "/together"

// faceShape is the version of the shape that what is shown of a pairing is kept in.
const faceShape = 1

// keptFace is what is kept to be shown of a pairing, under its cover and without it.
type keptFace struct {
	Shape  int              `json:"shape"`
	Face   wire.ClassFace   `json:"face"`
	Lifted wire.ClassLifted `json:"lifted"`
}

func faceOf(q store.ClassQuestion) (out keptFace, err error) {
	if err = json.Unmarshal(q.Face, &out); err == nil && out.Shape != faceShape {
		err = fmt.Errorf("pairing %d of a class is kept in shape %d, and %d is read here", q.ID, out.Shape, faceShape)
	}
	return out, err
}

func questionOf(q store.ClassQuestion) (ClassQuestion, error) {
	kept, err := faceOf(q)
	if err != nil {
		return ClassQuestion{}, err
	}
	out := ClassQuestion{Called: q.Called, Face: kept.Face, Hands: wire.ClassTallyOf(q.Hands)}
	if q.Lifted {
		truth, tally, score := wire.ClassTruthOf(q.Truth), wire.ClassTallyOf(q.Tally), wire.ClassScoreOf(q.Tally.Against(q.Truth.Right))
		out.Lifted, out.Truth, out.Tally, out.Score = &kept.Lifted, &truth, &tally, &score
	}
	return out, nil
}

func (s *Server) classRoundOf(r store.ClassRoundNow, err error) (*struct{ Body ClassRound }, error) {
	if err != nil {
		return nil, err
	}
	out := &struct{ Body ClassRound }{ClassRound{
		ID: r.ID, Called: r.Called, Spacing: r.Spacing, Opened: r.OpenedAt != nil, Open: r.Open(s.store.Now()), Place: r.Place, Version: r.Version,
		Joined: r.Counts.Joined, Guessed: r.Counts.Guessed, Hues: colour.HueWords(), Pairings: []ClassQuestion{},
	}}
	out.Body.Ended = r.Over(s.store.Now())
	if !out.Body.Ended {
		out.Body.Token = r.Token
	}
	if r.Code != nil && out.Body.Open {
		out.Body.Code = *r.Code
	}
	for _, q := range r.Questions {
		one, err := questionOf(q)
		if err != nil {
			return nil, err
		}
		out.Body.Pairings = append(out.Body.Pairings, one)
	}
	return out, nil
}

// ClassPair is two paints that a class is asked about.
type ClassPair struct {
	A string `json:"a" minLength:"1" maxLength:"60" doc:"paint"`
	B string `json:"b" minLength:"1" maxLength:"60"`
}

// roundCode is the address of a painter's round for pupils, as a picture of dark modules.
func (s *Server) roundCode(ctx context.Context, id int64) ([][]bool, error) {
	r, err := s.store.ClassRound(ctx, painter(ctx).ID, id)
	if err != nil {
		return nil, err
	}
	if r.Over(s.store.Now()) {
		return nil, huma.Error422UnprocessableEntity("This round is over: make another one, and print the sheet with that.")
	}
	return files.QRCode(s.outside(ctx) + togetherAt + "#" + r.Token)
}

// outside is where others reach the server: at home under its own address, else as it was asked.
func (s *Server) outside(ctx context.Context) string {
	if home := s.atHome().Address; s.Listener == Loopback && home != "" {
		return home
	}
	request, _ := ctx.Value(requestKey{}).(*fasthttp.RequestCtx)
	return s.scheme() + "://" + string(request.Host())
}

type newClassRoundInput struct {
	Look
	Body struct {
		Wheel int64       `json:"wheel" minimum:"1" doc:"a kept wheel"`
		Pairs []ClassPair `json:"pairs,omitempty" maxItems:"500" doc:"of its paints; its secondaries when left out"`
	}
}

// newClassRound makes a round of a kept wheel.
func (s *Server) newClassRound(ctx context.Context, in *newClassRoundInput) (*struct{ Body ClassRound }, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	var pairs []store.Couple
	for _, p := range in.Body.Pairs {
		pairs = append(pairs, store.Couple(p))
	}
	p := painter(ctx)
	asked, err := s.studio.AskedOfClass(ctx, p, in.Body.Wheel, pairs)
	if err != nil {
		return nil, err
	}
	var of []store.ClassQuestion
	for _, a := range asked.Of {
		face := keptFace{Shape: faceShape}
		face.Face, face.Lifted = v.ClassFace(a.A, a.B, bias.School(p.WarmBlue), asked.Spacing)
		kept, err := json.Marshal(face)
		if err != nil {
			return nil, err
		}
		of = append(of, store.ClassQuestion{Called: a.Called, Face: kept, Truth: a.Truth})
	}
	r, err := s.store.NewClassRound(ctx, p.ID, store.ClassRound{WheelID: &in.Body.Wheel, Called: asked.Called, Spacing: asked.Spacing.String()}, of)
	if err != nil {
		return nil, err
	}
	return s.classRound(ctx, &ThingID{r.ID})
}

func (s *Server) classRound(ctx context.Context, in *ThingID) (*struct{ Body ClassRound }, error) {
	return s.classRoundOf(s.store.ClassRound(ctx, painter(ctx).ID, in.ID))
}

func (s *Server) classRounds(ctx context.Context, _ *struct{}) (*struct{ Body ClassRounds }, error) {
	rounds, of, err := s.store.ClassRounds(ctx, painter(ctx).ID)
	if err != nil {
		return nil, err
	}
	out := &struct{ Body ClassRounds }{ClassRounds{Rounds: []ClassRoundEntry{}}}
	var all []journal.Answered
	for _, r := range rounds {
		one := ClassRoundEntry{ID: r.ID, Called: r.Called, Made: r.CreatedAt, Wheel: r.WheelID, Opened: r.OpenedAt, Open: r.Open(s.store.Now()), Ended: r.Over(s.store.Now()), Pairings: len(of[r.ID])}
		var score journal.ClassScore
		for _, q := range of[r.ID] {
			if !q.Lifted {
				continue
			}
			one.Lifted++
			score.Add(q.Tally.Against(q.Truth.Right))
			all = append(all, journal.Answered{Truth: q.Truth, Tally: q.Tally})
		}
		one.Score = wire.ClassScoreOf(score)
		out.Body.Rounds = append(out.Body.Rounds, one)
	}
	out.Body.Eyes = wire.ClassEyesOf(journal.ClassEyes(all))
	return out, nil
}

type moveClassRoundInput struct {
	ThingID
	Body struct {
		Version int    `json:"version" minimum:"1" doc:"of the round as the teacher sees it"`
		Move    string `json:"move" format:"classMove"`
		Place   int    `json:"place,omitempty" minimum:"0" maximum:"39" doc:"to go to"`
	}
}

func (s *Server) moveClassRound(ctx context.Context, in *moveClassRoundInput) (*struct{ Body ClassRound }, error) {
	return s.classRoundOf(s.store.MoveClassRound(ctx, painter(ctx).ID, in.ID, in.Body.Version, in.Body.Move, in.Body.Place))
}

type countHandsInput struct {
	ThingID
	Body struct {
		Place int             `json:"place" minimum:"0" maximum:"39" doc:"of the pairing in the round"`
		Was   wire.ClassTally `json:"was" doc:"all that were counted of it before, as the teacher sees it"`
		Hands wire.ClassTally `json:"hands" doc:"all that are counted of it now"`
	}
}

func (s *Server) countHands(ctx context.Context, in *countHandsInput) (*struct{ Body ClassRound }, error) {
	was, err := in.Body.Was.Core()
	if err != nil {
		return nil, err
	}
	hands, err := in.Body.Hands.Core()
	if err != nil {
		return nil, err
	}
	return s.classRoundOf(s.store.CountHands(ctx, painter(ctx).ID, in.ID, in.Body.Place, was, hands))
}

func (s *Server) dropClassRound(ctx context.Context, in *ThingID) (*struct{ Body ClassRounds }, error) {
	if err := s.store.DropClassRound(ctx, painter(ctx).ID, in.ID); err != nil {
		return nil, err
	}
	return s.classRounds(ctx, nil)
}

// ClassCounts are what a stream tells a teacher of a round.
type ClassCounts struct {
	Version int `json:"version"`
	Joined  int `json:"joined"`
	Guessed int `json:"guessed"`
}

// classChanges streams the counts of a round whenever they may have changed.
func (s *Server) classChanges(ctx context.Context, in *ThingID) (*huma.StreamResponse, error) {
	of := painter(ctx).ID
	if _, err := s.store.ClassCounts(ctx, of, in.ID); err != nil {
		return nil, err
	}
	told, stop := s.studio.WatchClass(in.ID, true)
	return s.streamed(ctx, told, stop, streamTime, func(int64) (string, bool) {
		for len(told) > 0 {
			<-told // one answer to all that was told meanwhile
		}
		asked, cancel := context.WithTimeout(context.Background(), requestTime)
		defer cancel()
		now, err := s.store.ClassCounts(asked, of, in.ID)
		if err != nil {
			return "look", !errors.Is(err, store.ErrNotFound)
		}
		words, err := json.Marshal(ClassCounts(now))
		return string(words), err == nil
	}), nil
}

// errNothingAsked is the one answer to an address or a code that was guessed, or whose round is over.
var errNothingAsked = huma.Error404NotFound("No class is asked anything here. The round may be over, or the code was typed wrong.")

// JoinedClass is the round that a phone has come into.
type JoinedClass struct {
	Token string `json:"token" doc:"what its address ends in"`
}

// PupilWord is the word of a phone in a round. It comes in a header, which no log holds.
type PupilWord struct {
	Pupil string `header:"Pupil" doc:"the word of 130 bits that the phone made up, 26 letters of base 32, by which it is known in this round"`
}

var pupilWord = regexp.MustCompile("^[A-Z2-7]{26}$")

type joinClassInput struct {
	PupilWord
	Body struct {
		At string `json:"at" minLength:"1" maxLength:"40" doc:"what the address of the round ends in, or its code"`
	}
}

// joinClass lets a phone into a round.
func (s *Server) joinClass(ctx context.Context, in *joinClassInput) (*struct{ Body JoinedClass }, error) {
	if !pupilWord.MatchString(in.Pupil) {
		return nil, huma.Error422UnprocessableEntity("A phone makes up a word of 26 letters to be known by: send it in the header Pupil.")
	}
	from := address(ctx)
	if s.limits.codes.spent(ctx, from) {
		return nil, huma.Error429TooManyRequests(errGuessing.Message)
	}
	token, err := s.store.JoinClassRound(ctx, strings.ToUpper(strings.Join(strings.Fields(in.Body.At), "")), in.Pupil)
	if errors.Is(err, store.ErrNotFound) {
		s.limits.codes.allows(ctx, from)
		return nil, errNothingAsked
	}
	if err != nil {
		return nil, err
	}
	return &struct{ Body JoinedClass }{JoinedClass{token}}, nil
}

// ClassSeat is what a phone in a round sees of it.
type ClassSeat struct {
	Open    bool              `json:"open" doc:"guesses are taken"`
	Place   int               `json:"place"`
	Of      int               `json:"of" doc:"pairings in the round"`
	Called  string            `json:"called" doc:"the slot that the pairing fills; empty where it is of no wheel"`
	Hues    []string          `json:"hues" doc:"the twelve words, in the order of tallies"`
	Face    *wire.ClassFace   `json:"face,omitempty" doc:"none before the round is open"`
	Said    *wire.Expected    `json:"said,omitempty" doc:"by this phone, while the cover lies"`
	Lifted  *wire.ClassLifted `json:"lifted,omitempty"`
	Truth   *wire.ClassTruth  `json:"truth,omitempty"`
	Tally   *wire.ClassTally  `json:"tally,omitempty"`
	Version int               `json:"version"`
}

type classSeatOutput struct {
	CacheControl string `header:"Cache-Control"`
	Body         ClassSeat
}

// classSeat is what a phone sees of the round that it has joined.
func (s *Server) classSeat(ctx context.Context, in *PupilWord) (*classSeatOutput, error) {
	got, err := s.store.ClassSeat(ctx, in.Pupil)
	if errors.Is(err, store.ErrNotFound) {
		return nil, errNothingAsked
	}
	if err != nil {
		return nil, err
	}
	out := &classSeatOutput{CacheControl: "no-store", Body: ClassSeat{Open: got.Round.Open(s.store.Now()), Place: got.Round.Place, Of: got.Of, Hues: colour.HueWords(), Version: got.Round.Version}}
	if !out.Body.Open {
		return out, nil
	}
	one, err := questionOf(got.Question)
	if err != nil {
		return nil, err
	}
	out.Body.Called, out.Body.Face, out.Body.Lifted, out.Body.Truth, out.Body.Tally = one.Called, &one.Face, one.Lifted, one.Truth, one.Tally
	if got.Said != nil {
		out.Body.Said = &wire.Expected{HueWord: got.Said.HueWord, Verdict: got.Said.Verdict.String(), Mud: wire.MudStart(got.Said.Mud)}
	}
	return out, nil
}

type classGuessInput struct {
	PupilWord
	Body struct {
		Place int `json:"place" minimum:"0" maximum:"39" doc:"of the pairing in the round"`
		wire.Expected
	}
}

// classGuess keeps what a phone says of the pairing that is asked for.
func (s *Server) classGuess(ctx context.Context, in *classGuessInput) (*struct{}, error) {
	said, err := journal.ParseGuess(in.Body.HueWord, in.Body.Verdict, in.Body.Mud.Nowhere, in.Body.Mud.At)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	if err := s.studio.ClassGuess(ctx, in.Pupil, in.Body.Place, said); errors.Is(err, store.ErrNotFound) {
		return nil, errNothingAsked
	} else if err != nil {
		return nil, err
	}
	return nil, nil
}

// PupilScore says what of a guess was right.
type PupilScore struct {
	Hue     bool `json:"hue"`
	Verdict bool `json:"verdict"`
	Mud     bool `json:"mud"`
	Right   int  `json:"right" doc:"of the three"`
}

// pupilScore scores what a phone remembers that it said of the pairing whose cover was lifted: here nobody knows any more who said what.
func (s *Server) pupilScore(ctx context.Context, in *classGuessInput) (*struct{ Body PupilScore }, error) {
	said, err := journal.ParseGuess(in.Body.HueWord, in.Body.Verdict, in.Body.Mud.Nowhere, in.Body.Mud.At)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	seat, err := s.store.ClassSeat(ctx, in.Pupil)
	switch {
	case errors.Is(err, store.ErrNotFound):
		return nil, errNothingAsked
	case err != nil:
		return nil, err
	case in.Body.Place != seat.Round.Place || !seat.Question.Lifted:
		return nil, huma.Error422UnprocessableEntity("The cover of this pairing has not been lifted, or the class is at another one.")
	}
	var out PupilScore
	out.Hue, out.Verdict, out.Mud = seat.Question.Truth.Right.Of(said)
	for _, right := range []bool{out.Hue, out.Verdict, out.Mud} {
		if right {
			out.Right++
		}
	}
	return &struct{ Body PupilScore }{out}, nil
}

// seatChanges streams that the teacher has moved; the stream ends when the round is over.
func (s *Server) seatChanges(ctx context.Context, in *PupilWord) (*huma.StreamResponse, error) {
	round, err := s.store.RoundOfPupil(ctx, in.Pupil)
	if errors.Is(err, store.ErrNotFound) {
		return nil, errNothingAsked
	}
	if err != nil {
		return nil, err
	}
	told, stop := s.studio.WatchClass(round, false)
	return s.streamed(ctx, told, stop, streamTime, func(int64) (string, bool) {
		asked, cancel := context.WithTimeout(context.Background(), requestTime)
		defer cancel()
		if _, err := s.store.RoundOfPupil(asked, in.Pupil); errors.Is(err, store.ErrNotFound) {
			return "over", false
		}
		return "look", true
	}), nil
}

func (s *Server) classRoutes() {
	s.classSheetRoutes()
	tags := []string{"class"}
	register(s, huma.Operation{OperationID: "classRounds", Tags: tags, Summary: "The rounds that were made for a class, and how it saw what it was asked", Method: http.MethodGet, Path: "/api/class/rounds"}, s.classRounds)
	register(s, huma.Operation{OperationID: "newClassRound", Tags: tags, Summary: "Makes a round of a wheel for a class to predict", Method: http.MethodPost, Path: "/api/class/rounds"}, s.newClassRound)
	register(s, huma.Operation{OperationID: "classRound", Tags: tags, Summary: "A round as its teacher sees it", Method: http.MethodGet, Path: "/api/class/rounds/{id}"}, s.classRound)
	register(s, huma.Operation{OperationID: "moveClassRound", Tags: tags, Summary: "Opens a round, goes to a pairing, lifts its cover, or ends the round", Method: http.MethodPost, Path: "/api/class/rounds/{id}/moves"}, s.moveClassRound)
	register(s, huma.Operation{OperationID: "countHands", Tags: tags, Summary: "Keeps what a teacher counted of a pairing", Method: http.MethodPut, Path: "/api/class/rounds/{id}/hands"}, s.countHands)
	register(s, huma.Operation{OperationID: "dropClassRound", Tags: tags, Summary: "Deletes a round and what was counted in it", Method: http.MethodDelete, Path: "/api/class/rounds/{id}"}, s.dropClassRound)
	register(s, huma.Operation{OperationID: "classChanges", Tags: tags, Summary: "Server-sent events: the counts of a round whenever they may have changed", Method: http.MethodGet, Path: "/api/class/rounds/{id}/changes"}, s.classChanges)
	register(s, huma.Operation{OperationID: "joinClass", Tags: tags, Summary: "Lets a phone into a round", Method: http.MethodPost, Path: "/api/together", Metadata: forPupils}, s.joinClass)
	register(s, huma.Operation{OperationID: "classSeat", Tags: tags, Summary: "What a phone in a round sees of it", Method: http.MethodGet, Path: "/api/together", Metadata: forPupils}, s.classSeat)
	register(s, huma.Operation{OperationID: "classGuess", Tags: tags, Summary: "Keeps what a phone says of the pairing that is asked for", Method: http.MethodPut, Path: "/api/together/guess", DefaultStatus: http.StatusNoContent, Metadata: forPupils}, s.classGuess)
	register(s, huma.Operation{OperationID: "pupilScore", Tags: tags, Summary: "Scores what a phone said of a pairing whose cover was lifted; nothing is kept", Method: http.MethodPost, Path: "/api/together/score", Metadata: forPupils}, s.pupilScore)
	register(s, huma.Operation{OperationID: "seatChanges", Tags: tags, Summary: "Server-sent events: one whenever the teacher has moved, and none after \"over\"", Method: http.MethodGet, Path: "/api/together/changes", Metadata: forPupils}, s.seatChanges)
}

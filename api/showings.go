package api

import (
	"cmp"
	"context"
	"crypto/rand"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/text"
	"gyrophane/files"
	"gyrophane/store"
	"gyrophane/studio"
	"gyrophane/wire"
)

// Exhibit is what others see of a thing that a painter shows.
type Exhibit struct {
	Kind       string            `json:"kind" format:"showable"`
	Called     string            `json:"called" doc:"what is shown, by its name"`
	By         string            `json:"by,omitempty" doc:"the painter, who wants to be named"`
	AsOf       *time.Time        `json:"asOf" doc:"the day that it is shown as of; null where it is shown as it is now"`
	Wheel      *wire.Wheel       `json:"wheel,omitempty"`
	Comparison *wire.Comparison  `json:"comparison,omitempty"`
	Note       string            `json:"note,omitempty" doc:"of a comparison"`
	Decision   string            `json:"decision,omitempty" doc:"of a comparison"`
	Box        []ExhibitedTube   `json:"box,omitempty" doc:"in hue order"`
	Sheet      []string          `json:"sheet,omitempty" doc:"the pages of a sheet as SVG, in millimetres"`
	Sitting    *ExhibitedSitting `json:"sitting,omitempty"`
	Cautions   string            `json:"cautionNotice,omitempty" doc:"of a box: what goes before every caution"`
}

// ExhibitedTube is a tube as others see it.
type ExhibitedTube struct {
	Called string    `json:"called" doc:"its nickname, or the paint's name"`
	Paint  wire.Tube `json:"paint"`
	Note   string    `json:"note,omitempty"`
	Price  *float64  `json:"price,omitempty" doc:"in the painter's own money"`
	TubeML *float64  `json:"tubeMl,omitempty" doc:"millilitres in the tube"`
}

// ExhibitedSitting is what came of a sitting, as others see it.
type ExhibitedSitting struct {
	Began    time.Time           `json:"began"`
	Ended    bool                `json:"ended"`
	Medium   string              `json:"medium" format:"medium"`
	Title    string              `json:"title" doc:"of its sheet"`
	Places   []wire.JournalPlace `json:"places" doc:"without what was expected of them"`
	Dried    []string            `json:"dried" doc:"what drying did, a sentence each"`
	Jumps    []wire.PaintedJump  `json:"jumps"`
	Notes    []string            `json:"notes" doc:"what the painter noted"`
	NextTime string              `json:"nextTime,omitempty" doc:"what to do otherwise when the wheel is painted again"`
	Photos   []wire.SittingPhoto `json:"photos"`
}

// shownAt is the page of whatever is shown. Its token comes behind a #, which no browser tells a server.
const shownAt = "/shown"

// exhibitShape is the version of the shape that an exhibit is kept in.
const exhibitShape = 1

// keptExhibit is what is kept of something that is shown as of a day.
type keptExhibit struct {
	Shape   int     `json:"shape"`
	Exhibit Exhibit `json:"exhibit"`
}

// Showing is something that a painter shows to others.
type Showing struct {
	ID     int64      `json:"id"`
	Kind   string     `json:"kind" format:"showable"`
	Thing  int64      `json:"thing,omitempty" doc:"id of what is shown; none of the box"`
	Called string     `json:"called" doc:"what is shown, by its name when the showing was made"`
	Live   bool       `json:"live" doc:"it is seen as it is now; else as it was when it was made"`
	Notes  bool       `json:"notes"`
	Prices bool       `json:"prices"`
	Photos bool       `json:"photos"`
	Name   bool       `json:"name"`
	Made   time.Time  `json:"made"`
	Ends   *time.Time `json:"ends" doc:"null where it stays until it is taken back"`
}

// MadeShowing is a showing with the token that its address ends in, which is not told again.
type MadeShowing struct {
	Showing
	Token string `json:"token"`
}

type newShowingInput struct {
	Look
	Body struct {
		Kind   string `json:"kind" format:"showable"`
		Thing  int64  `json:"thing,omitempty" minimum:"1" doc:"id of what is shown; none of the box"`
		Live   bool   `json:"live" doc:"to be seen as it is at the time; else as it is now"`
		Notes  bool   `json:"notes,omitempty"`
		Prices bool   `json:"prices,omitempty"`
		Photos bool   `json:"photos,omitempty"`
		Sheet  string `json:"sheet,omitempty" maxLength:"1000" doc:"which one of a wheel: what stands behind the question mark where it is put on paper"`
		Name   bool   `json:"name,omitempty"`
		Hours  int    `json:"hours,omitempty" minimum:"1" maximum:"8784" doc:"until it ends by itself; until it is taken back when left out"`
	}
}

// newShowing begins to show something to whoever has the address.
func (s *Server) newShowing(ctx context.Context, in *newShowingInput) (*struct{ Body MadeShowing }, error) {
	if _, err := in.view(); err != nil {
		return nil, err
	}
	b := in.Body
	one := store.Showing{Kind: b.Kind, Medium: in.Medium, Light: in.Light, Judged: in.Judged, Notes: b.Notes, Prices: b.Prices, Photos: b.Photos, Name: b.Name, Live: b.Live}
	switch b.Kind {
	case store.ShowsWheel:
		one.WheelID = &b.Thing
	case store.ShowsSheet:
		one.WheelID, one.Sheet = &b.Thing, b.Sheet
	case store.ShowsSitting:
		one.SittingID = &b.Thing
	case store.ShowsComparison:
		one.ComparisonID = &b.Thing
	}
	if b.Hours > 0 {
		ends := s.store.Now().Add(time.Duration(b.Hours) * time.Hour)
		one.EndsAt = &ends
	}
	seen, err := s.look(ctx, one)
	if err != nil {
		return nil, err
	}
	if !b.Live {
		now := s.store.Now()
		seen.AsOf = &now
		if one.Kept, err = json.Marshal(keptExhibit{exhibitShape, seen}); err != nil {
			return nil, err
		}
	}
	one.Called = seen.Called
	token := rand.Text()
	if one, err = s.store.NewShowing(ctx, painter(ctx).ID, token, one); err != nil {
		return nil, err
	}
	return &struct{ Body MadeShowing }{MadeShowing{showingOf(one), token}}, nil
}

func showingOf(one store.Showing) Showing {
	return Showing{ID: one.ID, Kind: one.Kind, Thing: one.Thing(), Called: one.Called, Live: one.Live, Notes: one.Notes, Prices: one.Prices, Photos: one.Photos, Name: one.Name, Made: one.CreatedAt, Ends: one.EndsAt}
}

// look is what is seen of a showing of the painter of the context, as it is now; nothing is seen that is not put in here.
func (s *Server) look(ctx context.Context, one store.Showing) (out Exhibit, err error) {
	out = Exhibit{Kind: one.Kind}
	p := painter(ctx)
	if one.Name {
		out.By = p.Name
	}
	as := Look{Medium: one.Medium, Light: one.Light, Judged: one.Judged}
	switch one.Kind {
	case store.ShowsWheel:
		var w store.Wheel
		if w, err = s.store.Wheel(ctx, p.ID, one.Thing()); err != nil {
			return out, err
		}
		q := &WheelQuery{Look: as, Wheel: w.ID}
		q.Body.System, q.Body.Choices = wire.SelectionOf(w.Snapshot.System), wire.ChoicesOf(w.Settings.Choices)
		built, err := s.build(ctx, q)
		out.Called, out.Wheel = w.Name, &built
		return out, err
	case store.ShowsComparison:
		var c store.Comparison
		if c, err = s.store.Comparison(ctx, p.ID, one.Thing()); err != nil {
			return out, err
		}
		got, err := s.compare(ctx, &ComparedQuery{Look: as, Wheels: store.WheelsOf(c.Address)})
		if err != nil {
			return out, err
		}
		var names []string
		for _, system := range got.Body.Systems {
			names = append(names, system.Name)
		}
		out.Called, out.Comparison = text.Listed(names), &got.Body
		if one.Notes {
			out.Note, out.Decision = c.Note, c.Decision
		}
		if !one.Prices {
			for i := range got.Body.Systems {
				got.Body.Systems[i].Price = nil
			}
		}
		return out, nil
	case store.ShowsSheet:
		out.Called, out.Sheet, err = s.shownSheet(ctx, one)
		return out, err
	case store.ShowsSitting:
		out.Called, out.Sitting, err = s.shownSitting(ctx, one)
		return out, err
	default:
		got, err := s.box(ctx, &as)
		if err != nil {
			return out, err
		}
		out.Called, out.Cautions, out.Box = "A box of paints", got.Body.CautionNotice, []ExhibitedTube{}
		for _, t := range got.Body.Tubes {
			tube := ExhibitedTube{Called: cmp.Or(t.Content.Nickname, t.Paint.Name), Paint: t.Paint}
			if one.Notes {
				tube.Note = t.Content.Note
			}
			if one.Prices {
				tube.Price, tube.TubeML = t.Content.Price, t.Content.TubeML
			}
			out.Box = append(out.Box, tube)
		}
		return out, nil
	}
}

// shownSheet is a sheet of a wheel as others see it, page by page.
func (s *Server) shownSheet(ctx context.Context, one store.Showing) (called string, pages []string, err error) {
	in, err := paperAsked(one.Sheet)
	if err != nil {
		return "", nil, err
	}
	which, named, table, o, err := in.sheet()
	if err != nil {
		return "", nil, err
	}
	o.Class = 0 // one of them is enough to look at
	called, laid, err := s.studio.ShownPaper(ctx, painter(ctx), one.Thing(), which, named, table, o)
	for _, page := range laid {
		pages = append(pages, string(files.SVG(called, page)))
	}
	return called, pages, err
}

// shownSitting is what came of a sitting as others see it.
func (s *Server) shownSitting(ctx context.Context, one store.Showing) (called string, out *ExhibitedSitting, err error) {
	got, err := s.studio.SittingJournal(ctx, painter(ctx), one.Thing())
	if err != nil {
		return "", nil, err
	}
	all := wire.SittingJournalOf(got)
	out = &ExhibitedSitting{Began: all.Began, Ended: all.Ended, Medium: all.Medium, Title: all.Title, Places: all.Places, Dried: all.Dried, Jumps: all.Jumps, Notes: []string{}, Photos: []wire.SittingPhoto{}}
	for i := range out.Places {
		out.Places[i].Expected = nil
	}
	if one.Notes {
		out.NextTime = all.NextTime
		for _, n := range all.Notes {
			if n.Text != "" {
				out.Notes = append(out.Notes, n.Text)
			}
		}
	}
	if one.Photos {
		out.Photos = all.Photos
	}
	return all.Name, out, nil
}

// showings are what the painter shows now.
func (s *Server) showings(ctx context.Context, _ *struct{}) (*struct{ Body []Showing }, error) {
	kept, err := s.store.Showings(ctx, painter(ctx).ID)
	out := &struct{ Body []Showing }{[]Showing{}}
	for _, one := range kept {
		out.Body = append(out.Body, showingOf(one))
	}
	return out, err
}

func (s *Server) dropShowing(ctx context.Context, in *ThingID) (*struct{ Body []Showing }, error) {
	if err := s.store.DropShowing(ctx, painter(ctx).ID, in.ID); err != nil {
		return nil, err
	}
	return s.showings(ctx, nil)
}

// Showable says what others see of a thing before it is shown.
type Showable struct {
	Seen   []string `json:"seen" doc:"always"`
	Notes  string   `json:"notes,omitempty" doc:"where the painter wants it; none where it has none"`
	Prices string   `json:"prices,omitempty" doc:"where the painter wants it"`
	Photos string   `json:"photos,omitempty" doc:"where the painter wants it"`
	Name   string   `json:"name" doc:"where the painter wants it"`
	Never  string   `json:"never" doc:"what is not seen in any case"`
}

type showableInput struct {
	Kind string `path:"kind" format:"showable" doc:"of the thing"`
}

func (s *Server) showable(_ context.Context, in *showableInput) (*struct{ Body Showable }, error) {
	return &struct{ Body Showable }{Showable(studio.ShowableOf(in.Kind))}, nil
}

// errNothingShown is the one answer to a token that was guessed, has ended or was taken back.
var errNothingShown = huma.Error404NotFound("Nothing is shown at this address. It may have been taken back, or its time is over.")

// ShownToken is what the address of something shown ends in. It comes in a header, which no log holds.
type ShownToken struct {
	Token string `header:"Showing" doc:"what the address of what is shown ends in"`
}

// showingBy is the showing of a token, and a context in which its painter is asked for what it shows, and nobody else.
func (s *Server) showingBy(ctx context.Context, in *ShownToken) (context.Context, store.Showing, error) {
	one, of, err := s.store.ShowingOf(ctx, in.Token)
	if errors.Is(err, store.ErrNotFound) {
		return ctx, one, errNothingShown
	}
	return context.WithValue(ctx, painterKey{}, of), one, err
}

type shownOutput struct {
	CacheControl string `header:"Cache-Control"`
	Body         Exhibit
}

// shownThing is what a showing shows to whoever has its token.
func (s *Server) shownThing(ctx context.Context, in *ShownToken) (*shownOutput, error) {
	ctx, one, err := s.showingBy(ctx, in)
	if err != nil {
		return nil, err
	}
	out := &shownOutput{CacheControl: "no-store"}
	if one.Live {
		out.Body, err = s.look(ctx, one)
	} else {
		out.Body, err = s.ofItsDay(ctx, one)
	}
	if errors.Is(err, store.ErrNotFound) {
		return nil, errNothingShown
	}
	return out, err
}

type shownPhotoInput struct {
	ShownToken
	Photo int64 `path:"photo" minimum:"1" doc:"of a sitting that is shown with its photos"`
}

type shownPhotoOutput struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

// shownPhoto is a photo of a sitting that is shown with its photos.
func (s *Server) shownPhoto(ctx context.Context, in *shownPhotoInput) (*shownPhotoOutput, error) {
	seen, err := s.shownThing(ctx, &in.ShownToken)
	if err != nil {
		return nil, err
	}
	if seen.Body.Sitting == nil || !slices.ContainsFunc(seen.Body.Sitting.Photos, func(p wire.SittingPhoto) bool { return p.ID == in.Photo }) {
		return nil, errNothingShown
	}
	ctx, one, err := s.showingBy(ctx, &in.ShownToken)
	if err != nil {
		return nil, err
	}
	jpeg, err := s.studio.Photo(ctx, painter(ctx), one.Thing(), in.Photo)
	if errors.Is(err, store.ErrNotFound) {
		err = errNothingShown
	}
	return &shownPhotoOutput{"image/jpeg", "no-store", jpeg}, err
}

// ofItsDay is what was kept to be seen of a showing when it was made.
func (s *Server) ofItsDay(ctx context.Context, one store.Showing) (Exhibit, error) {
	var kept keptExhibit
	whole, err := s.store.Exhibit(ctx, one)
	if err == nil {
		err = json.Unmarshal(whole, &kept)
	}
	if err == nil && kept.Shape != exhibitShape {
		err = fmt.Errorf("showing %d is kept in shape %d, and %d is read here", one.ID, kept.Shape, exhibitShape)
	}
	return kept.Exhibit, err
}

// shownChanges streams that what is shown may have changed; the stream ends when it is shown no more.
func (s *Server) shownChanges(ctx context.Context, in *ShownToken) (*huma.StreamResponse, error) {
	_, one, err := s.showingBy(ctx, in)
	if err != nil {
		return nil, err
	}
	told, stop := s.studio.WatchShown(one.PainterID, one.Kind == store.ShowsSitting)
	return s.streamed(ctx, told, stop, leftOf(one, s.store.Now()), func(int64) (string, bool) {
		asked, cancel := context.WithTimeout(context.Background(), requestTime)
		defer cancel()
		if _, _, err := s.store.ShowingOf(asked, in.Token); errors.Is(err, store.ErrNotFound) {
			return "over", false
		}
		return "look", true
	}), nil
}

// leftOf is how long a stream of a showing may go on: a showing that ends meanwhile is asked for again then, and is there no more.
func leftOf(one store.Showing, now time.Time) time.Duration {
	if one.EndsAt == nil {
		return streamTime
	}
	return min(streamTime, one.EndsAt.Sub(now))
}

func (s *Server) showingRoutes() {
	anybody := map[string]any{painterNeed: "none", openAtHome: true}
	register(s, huma.Operation{OperationID: "showings", Tags: []string{"showing"}, Summary: "What the painter shows to others", Method: http.MethodGet, Path: "/api/showings"}, s.showings)
	register(s, huma.Operation{OperationID: "newShowing", Tags: []string{"showing"}, Summary: "Shows one thing, to be read, to whoever has the address", Method: http.MethodPost, Path: "/api/showings"}, s.newShowing)
	register(s, huma.Operation{OperationID: "dropShowing", Tags: []string{"showing"}, Summary: "Takes back what was shown; whoever looks on sees it no more", Method: http.MethodDelete, Path: "/api/showings/{id}"}, s.dropShowing)
	register(s, huma.Operation{OperationID: "showable", Tags: []string{"showing"}, Summary: "What others would see of a kind of thing", Method: http.MethodGet, Path: "/api/showable/{kind}"}, s.showable)
	register(s, huma.Operation{OperationID: "shown", Tags: []string{"showing"}, Summary: "What is shown to whoever has the address", Method: http.MethodGet, Path: "/api/shown", Metadata: anybody}, s.shownThing)
	register(s, huma.Operation{OperationID: "shownPhoto", Tags: []string{"showing"}, Summary: "A photo of a sitting that is shown with its photos", Method: http.MethodGet, Path: "/api/shown/photos/{photo}", Metadata: anybody}, s.shownPhoto)
	register(s, huma.Operation{OperationID: "shownChanges", Tags: []string{"showing"}, Summary: "Server-sent events: one whenever what is shown may have changed, and none after \"over\"", Method: http.MethodGet, Path: "/api/shown/changes", Metadata: anybody}, s.shownChanges)
}

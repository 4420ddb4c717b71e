package studio

import (
	"cmp"
	"context"
	"errors"
	"math"
	"time"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
	"gyrophane/devices"
	"gyrophane/files"
	"gyrophane/store"
)

// KeptPhoto is a photo of a sitting, without its pixels.
type KeptPhoto struct {
	ID            int64
	Width, Height int
	Standin       bool
	At            time.Time
}

// Reads are the readings and photos of a sitting, the first first.
type Reads struct {
	Readings []journal.Dated
	Tests    []journal.Dated // test swatches, read by eye before their places were painted
	Photos   []KeptPhoto
}

// Reads lists what was read of a painter's sitting, without what photos did to it.
func (s *Studio) Reads(ctx context.Context, painter store.Painter, id int64) (out Reads, err error) {
	sitting, err := s.lookedBack(ctx, painter, id)
	if err != nil {
		return out, err
	}
	if out, err = s.readsOf(ctx, painter, &sitting); err != nil {
		return out, err
	}
	told := placesOf(&sitting, out)
	for i := range out.Readings {
		r := &out.Readings[i]
		by := &told.dry
		if r.Wet {
			by = &told.wet
		}
		r.Reading = by.Taken(r.Reading)
	}
	return out, nil
}

// readsOf are the readings and photos of a sitting as it stands.
func (s *Studio) readsOf(ctx context.Context, painter store.Painter, sitting *Sitting) (out Reads, err error) {
	for _, test := range sitting.Stands.Swatches {
		out.Tests = append(out.Tests, journal.Dated{Reading: journal.Reading{Region: test.Region, Reading: paint.Reading{Lab: *test.Looks, Source: paint.Eye, Wet: true, Medium: sitting.Medium}}, At: test.At})
	}
	readings, err := s.store.Readings(ctx, painter.ID, sitting.ID)
	if err != nil {
		return out, err
	}
	of := map[photoRead]*journal.Photograph{}
	for _, r := range readings {
		in, err := paint.ParseMedium(r.Medium)
		if err != nil {
			return out, err
		}
		one := journal.Dated{Reading: journal.Reading{Region: r.Region, Reading: paint.Reading{Lab: colour.Lab{L: r.L, A: r.A, B: r.B}, Source: paint.Source(r.Source), Wet: r.Wet, Medium: in}, Minutes: r.Minutes, Spread: r.Spread, Doubt: r.Doubt}, At: r.CreatedAt}
		one.Photo, one.AsSeen = spotOf(r, of), one.Lab
		if len(r.Spectrum) == colour.Bands {
			spectrum := colour.Spectrum(r.Spectrum)
			one.Spectrum = &spectrum
		}
		out.Readings = append(out.Readings, one)
	}
	photos, err := s.store.Photos(ctx, painter.ID, sitting.ID)
	for _, p := range photos {
		out.Photos = append(out.Photos, keptPhoto(p))
	}
	return out, err
}

// photoRead is a photo as it was read at once: wet places and dry ones apart.
type photoRead struct {
	id  int64
	wet bool
}

// spotOf is where on a photo a reading is of; nil where it is of none. All readings of a photo are of the
// same one.
func spotOf(r store.SittingReading, of map[photoRead]*journal.Photograph) *journal.PhotoSpot {
	if paint.Source(r.Source) != paint.Photo {
		return nil
	}
	out := &journal.PhotoSpot{Spread: r.Spread, Light: r.OnPhoto.Light}
	if r.OnPhoto.Photo != 0 {
		key := photoRead{r.OnPhoto.Photo, r.Wet}
		if of[key] == nil {
			of[key] = journal.PhotographOf(r.OnPhoto.Greys, r.OnPhoto.Step)
		}
		out.Of = of[key]
	}
	return out
}

func keptPhoto(p store.SittingPhoto) KeptPhoto {
	return KeptPhoto{ID: p.ID, Width: p.Width, Height: p.Height, Standin: p.Standin, At: p.CreatedAt}
}

// OnPhoto is where on a photo a reading is of.
type OnPhoto = store.OnPhoto

// NewReading is a colour that was read of a place.
type NewReading struct {
	Region string
	Lab    colour.Lab
	Source paint.Source
	Wet    bool
	Dry    bool // the painter says that it is, whatever its time to dry
	Spread float64
	Doubt  string
	On     OnPhoto // where on a photo it is of
	Told   string  // by which the page knows it; empty where it says none
}

// MostRead is how many readings are kept at once.
const MostRead = 200

// KeepReadings keeps readings of a sitting, all or none; the minutes since each place was
// painted are those of its last coat. What is read before that is dry is kept as wet, unless
// the painter says that it is dry.
func (s *Studio) KeepReadings(ctx context.Context, painter store.Painter, id int64, reads []NewReading) error {
	if len(reads) > MostRead {
		return input.Errorf("%d readings are more than are kept at once: send at most %d", len(reads), MostRead)
	}
	sitting, err := s.lookedBack(ctx, painter, id)
	if err != nil {
		return err
	}
	var rows []store.SittingReading
	for _, r := range reads {
		i := sitting.Plan.Sheet.Find(r.Region)
		if i < 0 {
			return input.Errorf("there is no place %q on the sheet", input.Clip(r.Region))
		}
		wet := r.Wet || !r.Dry && sitting.Stands.Places[i].DryAt.After(sitting.Now)
		sound, err := paint.LabReading(r.Lab, r.Source, wet, sitting.Medium)
		if err != nil {
			return input.Errorf("%s: %w", sitting.Plan.Sheet.Regions[i].Label, err)
		}
		one := journal.Reading{Region: r.Region, Reading: sound, Spread: r.Spread, Doubt: r.Doubt}
		if sitting.Stands.Places[i].Ran {
			one.Doubt = cmp.Or(one.Doubt, "something ran into it, and it waits for another coat")
		}
		if at := sitting.Stands.Places[i].Painted; !at.IsZero() {
			one.Minutes = math.Max(0, sitting.Now.Sub(at).Minutes())
		}
		if err := one.Check(); err != nil {
			return err
		}
		if err := checkOnPhoto(r.On); err != nil {
			return err
		}
		rows = append(rows, store.SittingReading{Region: r.Region, L: sound.Lab.L, A: sound.Lab.A, B: sound.Lab.B, Source: string(r.Source), Wet: wet, Medium: sitting.Medium.ID, Minutes: one.Minutes, Spread: r.Spread, Doubt: one.Doubt, OnPhoto: r.On, Told: r.Told})
	}
	return s.store.AddReadings(ctx, painter.ID, id, rows)
}

// checkOnPhoto says what is wrong with where on a photo a reading is of.
func checkOnPhoto(on OnPhoto) error {
	if on.Photo == 0 {
		return nil
	}
	if err := on.Light.Check(); err != nil {
		return err
	}
	if err := on.Greys.Check(); err != nil {
		return err
	}
	if !(on.Step >= 0 && on.Step <= 1) {
		return input.Errorf("the grey step reflects %v, and that lies between 0 and 1", on.Step)
	}
	return nil
}

// sheetOf is the sheet of a painter's sitting, and its medium.
func (s *Studio) sheetOf(ctx context.Context, painter store.Painter, id int64) (*bench.Plan, error) {
	kept, _, err := s.store.Sitting(ctx, painter.ID, id)
	if err != nil {
		return nil, err
	}
	return s.begun(kept)
}

// KeepPhoto keeps a photo of a painter's sitting, JPEG or PNG, reduced and without what a
// camera notes in it.
func (s *Studio) KeepPhoto(ctx context.Context, painter store.Painter, id int64, data []byte) (KeptPhoto, error) {
	picture, err := files.ReadPhoto(ctx, data)
	if err != nil {
		return KeptPhoto{}, err
	}
	picture = picture.Reduced()
	jpeg, err := picture.JPEG()
	if err != nil {
		return KeptPhoto{}, err
	}
	w, h := picture.Size()
	return s.addPhoto(ctx, painter, id, store.SittingPhoto{JPEG: jpeg, Width: w, Height: h})
}

func (s *Studio) addPhoto(ctx context.Context, painter store.Painter, id int64, p store.SittingPhoto) (KeptPhoto, error) {
	kept, err := s.store.AddPhoto(ctx, painter.ID, id, p)
	return keptPhoto(kept), err
}

// Photo is a photo of a painter's sitting as a JPEG.
func (s *Studio) Photo(ctx context.Context, painter store.Painter, id, photoID int64) ([]byte, error) {
	kept, err := s.store.Photo(ctx, painter.ID, id, photoID)
	return kept.JPEG, err
}

// DropPhoto deletes a photo; what was read of it stays.
func (s *Studio) DropPhoto(ctx context.Context, painter store.Painter, id, photoID int64) error {
	return s.store.DropPhoto(ctx, painter.ID, id, photoID)
}

// PhotoOfSheet is what a photo says of a sitting's sheet. Why it is refused is in
// Refused; the marks are those that were found or given.
type PhotoOfSheet struct {
	Sheet   *bench.Sheet
	Drawn   bool // freely, without printed marks
	Read    photo.Result
	Found   bool // the marks were found by the program
	Refused error
	Told    journal.Explanation // what the photo does to colours, with the tubes as they are known
	picture photo.Picture
}

// ReadPhoto reads a photo of a painter's sitting: by the marks that are given or, where
// there are none, those that are found.
func (s *Studio) ReadPhoto(ctx context.Context, painter store.Painter, id, photoID int64, how HowRead) (out PhotoOfSheet, err error) {
	sitting, err := s.lookedBack(ctx, painter, id)
	if err != nil {
		return out, err
	}
	plan := sitting.Plan
	data, err := s.Photo(ctx, painter, id, photoID)
	if err != nil {
		return out, err
	}
	kept, err := files.ReadPhoto(ctx, data)
	if err != nil {
		return out, err
	}
	out.Sheet, out.picture = plan.Sheet, kept.Picture()
	at := photo.Corners{}
	if how.Marks != nil {
		at = *how.Marks
	} else if at, err = photo.FindMarks(&out.picture, plan.Sheet); err == nil {
		out.Found = true
	}
	if err == nil {
		read := photo.ReadSheet
		if out.Drawn = how.Drawn && how.Marks != nil; out.Drawn {
			read = photo.ReadDrawn
		}
		out.Read, err = read(&out.picture, plan.Sheet, at, how.Spots)
	}
	out.Read.Corners = at
	if errors.As(err, new(input.Error)) {
		out.Refused, err = err, nil
	}
	if err == nil && out.Refused == nil {
		out.Told = told(&sitting, &out.Read, how)
	}
	return out, err
}

// HowRead is how a photo is read.
type HowRead struct {
	Marks *photo.Corners        // nil where they are to be found
	Drawn bool                  // freely: the marks are its quarter points
	Spots map[string]photo.Spot // moved or left out, by their regions
	Wet   bool
	Step  float64 // what the grey step was measured to reflect; 0 where it was not
}

// told is what a photo of a sitting's sheet does to colours, by what its wells held.
func told(sitting *Sitting, read *photo.Result, how HowRead) journal.Explanation {
	of := journal.PhotographOf(read.Greys, how.Step)
	var samples []journal.Sample
	for _, r := range read.Readings {
		if r.Doubt == "" {
			one := journal.Reading{Reading: paint.Reading{Lab: r.Lab, Source: paint.Photo, Wet: how.Wet}, Spread: r.Spread, Photo: &journal.PhotoSpot{Of: of, Light: r.Light, Spread: r.Spread}}
			samples = append(samples, sampleOf(sitting.Plan, &sitting.Stands, r.Region, &one))
		}
	}
	return journal.Explain(samples, sitting.Medium, sitting.Sure)
}

// Straight is the sheet of a photo straightened, as a JPEG, with the light evened out or
// as it was; the picture must not have been refused.
func (p *PhotoOfSheet) Straight(even bool) ([]byte, error) {
	if p.Refused != nil {
		return nil, p.Refused
	}
	img := p.Read.Straight(&p.picture, p.Sheet, even)
	return files.JPEG(img)
}

// StandinPhoto takes a photo of a sitting's sheet with the stand-in camera, the tubes as
// strong as they are said to be, and keeps it.
func (s *Studio) StandinPhoto(ctx context.Context, painter store.Painter, id int64, shot devices.Shot) (KeptPhoto, error) {
	plan, err := s.sheetOf(ctx, painter, id)
	if err != nil {
		return KeptPhoto{}, err
	}
	img, err := devices.Photograph(plan.Sheet, plan.Settings.Medium, shot)
	if err != nil {
		return KeptPhoto{}, input.Wrap(err)
	}
	jpeg, err := files.JPEG(img)
	if err != nil {
		return KeptPhoto{}, err
	}
	size := img.Bounds().Size()
	return s.addPhoto(ctx, painter, id, store.SittingPhoto{JPEG: jpeg, Width: size.X, Height: size.Y, Standin: true})
}

// Held is a colour that something is held against by eye: how it differs from the one aimed at, in
// words, and the ribbons through it.
type Held struct {
	Lab     colour.Lab
	Says    string
	Ribbons []journal.Ribbon
}

// Ribbons are what a place of a sitting is held in by eye, so far either way in CIEDE2000, through
// the colour that was come to (CIELAB or #rrggbb); through what is computed where none was yet.
func (s *Studio) Ribbons(ctx context.Context, painter store.Painter, id int64, region, through string, wet bool, off float64) (out Held, err error) {
	plan, err := s.sheetOf(ctx, painter, id)
	if err != nil {
		return out, err
	}
	i := plan.Sheet.Find(region)
	if i < 0 {
		return out, input.Errorf("there is no place %q on the sheet", input.Clip(region))
	}
	look := plan.Sheet.Regions[i].Read(plan.Settings.Medium, wet)
	return heldIn(look.Lab(), through, plan.Settings.Medium, wet, off)
}

// RibbonsFrom are what a colour that somebody wants is held in, begun at one that comes near it: off
// (0.1 to 20, CIEDE2000) either way, through the colour that was come to or, where that is empty, the one
// begun at; both are CIELAB or #rrggbb. The error is an input.Error.
func RibbonsFrom(begun, through string, off float64) (out Held, err error) {
	in, err := paint.ParseMedium(paint.UsualMedium)
	if err != nil {
		return out, err
	}
	from, err := parsed("the colour to begin at", begun, in, false)
	if err != nil {
		return out, err
	}
	return heldIn(from, through, in, false, off)
}

// heldIn are the ribbons through a colour, or through the one aimed at where none was come to.
func heldIn(aimed colour.Lab, through string, in paint.Medium, wet bool, off float64) (out Held, err error) {
	if !(off >= 0.1 && off <= 20) {
		return out, input.Errorf("ribbons run from 0.1 to 20 either way, and not %v", off)
	}
	out.Lab = aimed
	if through != "" {
		if out.Lab, err = parsed("the colour in the middle", through, in, wet); err != nil {
			return out, err
		}
	}
	out.Says, out.Ribbons = out.Lab.OKLab().Beside(aimed.OKLab()), journal.Ribbons(out.Lab, off)
	return out, nil
}

// parsed is a colour as it is written; what says in an error which it is.
func parsed(what, text string, in paint.Medium, wet bool) (colour.Lab, error) {
	raw, err := paint.ParseColour(text, in, wet)
	if err != nil {
		return colour.Lab{}, err
	}
	read, err := raw.Parse(what)
	return read.Lab, err
}

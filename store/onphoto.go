package store

import (
	"gyrophane/core/colour"
	"gyrophane/core/photo"
)

// OnPhoto is where on a photo a reading is of, and what else that photo shows: kept with each reading,
// for it is needed when the photo is deleted.
type OnPhoto struct {
	Photo int64       // its id; 0 where the reading is of none, or was kept before this was
	Light photo.Light // bare paper beside the place
	Greys photo.Greys
	Step  float64 // what the grey step was measured to reflect, 0 to 1; 0 where it was not
}

type keptOnPhoto struct {
	versioned
	Photo int64       `json:"photo,omitempty"`
	Light *[3]float64 `json:"light,omitempty"`
	Ink   *keptGrey   `json:"ink,omitempty"`
	Grey  *keptGrey   `json:"grey,omitempty"`
	Step  float64     `json:"step,omitempty"`
}

type keptGrey struct {
	L     float64    `json:"l"`
	A     float64    `json:"a"`
	B     float64    `json:"b"`
	Light [3]float64 `json:"light"`
}

func keepGrey(g *photo.Grey) *keptGrey {
	if g == nil {
		return nil
	}
	return &keptGrey{L: g.Lab.L, A: g.Lab.A, B: g.Lab.B, Light: g.Light}
}

func (k *keptGrey) open() *photo.Grey {
	if k == nil {
		return nil
	}
	return &photo.Grey{Lab: colour.Lab{L: k.L, A: k.A, B: k.B}, Light: k.Light}
}

func keepOnPhoto(p OnPhoto) keptOnPhoto {
	out := keptOnPhoto{versioned: onPhotoShape, Photo: p.Photo, Ink: keepGrey(p.Greys.Ink), Grey: keepGrey(p.Greys.Step), Step: p.Step}
	if p.Photo != 0 {
		light := [3]float64(p.Light)
		out.Light = &light
	}
	return out
}

func (k keptOnPhoto) open() OnPhoto {
	out := OnPhoto{Photo: k.Photo, Greys: photo.Greys{Ink: k.Ink.open(), Step: k.Grey.open()}, Step: k.Step}
	if k.Light != nil {
		out.Light = *k.Light
	}
	return out
}

package storetest

import (
	"math/rand"
	"reflect"
)

// Fill sets every exported field of what a pointer points to, and of what that holds, to
// something that hardly any other field has, so that one which is left out or swapped on a
// way there and back is found.
func Fill(v any) { filled(rand.New(rand.NewSource(26)), reflect.ValueOf(v).Elem(), 0) }

func filled(r *rand.Rand, v reflect.Value, deep int) {
	if deep > 8 {
		return // it holds itself
	}
	switch v.Kind() {
	case reflect.String:
		v.SetString(string(rune('a'+r.Intn(26))) + string(rune('a'+r.Intn(26))) + string(rune('a'+r.Intn(26))))
	case reflect.Bool:
		v.SetBool(true)
	case reflect.Int, reflect.Int8, reflect.Int16, reflect.Int32, reflect.Int64:
		v.SetInt(1 + r.Int63n(100))
	case reflect.Uint8, reflect.Uint, reflect.Uint64:
		v.SetUint(1 + uint64(r.Intn(2)))
	case reflect.Float64:
		v.SetFloat(1 + r.Float64())
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		filled(r, v.Elem(), deep+1)
	case reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 2, 2))
		for i := range v.Len() {
			filled(r, v.Index(i), deep+1)
		}
	case reflect.Array:
		for i := range v.Len() {
			filled(r, v.Index(i), deep+1)
		}
	case reflect.Map:
		v.Set(reflect.MakeMap(v.Type()))
		key, value := reflect.New(v.Type().Key()).Elem(), reflect.New(v.Type().Elem()).Elem()
		filled(r, key, deep+1)
		filled(r, value, deep+1)
		v.SetMapIndex(key, value)
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				filled(r, v.Field(i), deep+1)
			}
		}
	}
}

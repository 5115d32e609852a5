package settings

import "time"

// Announced is how long before it goes a record is announced.
const Announced = 30 * 24 * time.Hour

// GoesAt gives when the record of a lesson goes that ended at a time and is kept for so
// many months; false for never.
func GoesAt(ended time.Time, months int) (time.Time, bool) {
	if months <= 0 {
		return time.Time{}, false
	}
	return ended.AddDate(0, months, 0), true
}

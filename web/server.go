// Package web is the house's front door: routes, sign-in, the realtime
// endpoint, downloads and the built interface.
package web

import (
	"context"
	"io/fs"
	"log/slog"
	"net/http"
	"net/url"
	"runtime"

	"alpenglow/apart"
	"alpenglow/core/lesson"
	"alpenglow/live"
	"alpenglow/pdf"
	"alpenglow/store"

	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/promhttp"
)

// Config is what a server needs.
type Config struct {
	Store    *store.Store
	Hub      *live.Hub
	Log      *slog.Logger
	Registry *prometheus.Registry
	// UI holds the built interface, with index.html at its root.
	UI fs.FS
	// PublicURL is the address that people type, without a slash at its end;
	// nil means the address of each request.
	PublicURL *url.URL
	// TrustedProxies are the addresses whose X-Forwarded-For is believed.
	TrustedProxies []string
	// Stopping ends when the server stops: files that were brought in are then
	// removed. Nil for never.
	Stopping context.Context
	// PDF reads PDF files; without a command they are refused.
	PDF pdf.Reader
	// Pictures reads pictures.
	Pictures apart.Reader
	// Mail sends messages; without it links are shown to be handed on. Mailbox gives
	// what has come into the made-up mailbox of a demo.
	Mail    Mailer
	Mailbox func() []Letter
	// Illustrations are searched by word; nil for none.
	Illustrations Illustrations
	// Rehearsal sends a simulated class to the practice session with a code,
	// which runs a board; nil for none.
	Rehearsal func(code string, students int, board lesson.Board) Class
}

// Class is a simulated class that is at work.
type Class interface {
	// Pause lets it rest, or go on.
	Pause(paused bool)
	// Stop sends it home for good.
	Stop()
}

// Illustrations is a picture search.
type Illustrations interface {
	// Search lists those that have all of the words.
	Search(words []string) []LibraryItem
	// Drawing gives one as an SVG drawing; false when there is none.
	Drawing(id string) ([]byte, bool)
}

type server struct {
	Config
	logins *scs.SessionManager
	// codes and signIns count wrong ones, signing those from one address, seating
	// the seats that were given out, fronting the front screens.
	codes, signIns, signing, seating, fronting, guests, resets, makes, seconds, backs *guesses

	reading    chan struct{} // spreadsheets and registers take memory; so many at once
	painting   chan struct{} // pictures for whoever has a link; so many at once
	hashing    chan struct{} // argon2id takes 64 MB and a processor each; so many at once
	uploads    *uploads
	blanks     blanks
	intakes    *intakes
	rehearsals *rehearsals
	outputs    *outputs
	looking    looking
	panics     prometheus.Counter
}

// New gives the handler of all routes.
func New(c Config) (http.Handler, error) {
	s := &server{Config: c, logins: newLogins(c), codes: newGuesses(codeGuesses, &allGuesses),
		signIns: newGuesses(signInGuesses, nil),
		signing: newGuesses(addressSigns, nil), seating: newGuesses(newSeats, nil), backs: newGuesses(newBacks, nil),
		fronting: newGuesses(newFronts, nil), guests: newGuesses(newGuests, nil), resets: newGuesses(newResets, nil),
		makes: newGuesses(guestMakes, nil), seconds: newGuesses(secondGuesses, nil),
		reading:  make(chan struct{}, lists),
		painting: make(chan struct{}, 2),
		hashing:  make(chan struct{}, max(1, runtime.NumCPU()/2)),
		uploads:  newUploads(c.Pictures),
		intakes:  newIntakes(), rehearsals: newRehearsals(), outputs: newOutputs(),
		panics: prometheus.NewCounter(prometheus.CounterOpts{Name: "alpenglow_request_panics_total",
			Help: "Bugs that cost one request."})}
	c.Registry.MustRegister(s.panics)
	if c.Stopping != nil {
		context.AfterFunc(c.Stopping, s.intakes.close)
		context.AfterFunc(c.Stopping, s.outputs.close)
		go s.sweep(c.Stopping)
	}
	ui, err := newUI(c.UI)
	if err != nil {
		return nil, err
	}
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	if err := r.SetTrustedProxies(c.TrustedProxies); err != nil {
		return nil, err
	}
	r.Use(s.logged, s.recovered, s.securityHeaders, keepable)
	r.GET("/healthz", func(c *gin.Context) { c.String(http.StatusOK, "ok\n") })
	r.GET("/readyz", s.ready)
	r.GET("/metrics", gin.WrapH(promhttp.HandlerFor(c.Registry, promhttp.HandlerOpts{})))

	guarded := r.Group("", s.fromHere, limitBody, s.whoIsCalling)
	for path, h := range c.Hub.Handlers(s.sameOrigin) {
		guarded.Any(path, gin.WrapH(h))
	}
	api := guarded.Group("/api", noStore)
	api.GET("/me", s.me)
	api.POST("/sign-in", s.signIn)
	api.POST("/sign-out", s.signOut)
	api.POST("/guest", s.beGuest)
	api.POST("/reset", s.resetPassword)
	api.GET("/mailbox", s.mailbox)
	api.POST("/invitation/check", s.checkInvitation)
	api.POST("/invitation/accept", s.acceptInvitation)
	api.POST("/join/check", s.joinCheck)
	api.POST("/join", s.join)
	api.POST("/join/knock", s.knock)
	api.POST("/join/wait", s.wait)
	api.POST("/join/card", s.byCard)
	api.POST("/front", s.newFront)
	api.GET("/front", s.frontStands)
	api.GET("/sessions/:id/invitation", s.invitation)
	api.GET("/sessions/:id/qr.svg", s.qr)
	api.POST("/leave", s.leave)
	api.GET("/sessions/:id/given", s.given)
	api.POST("/given", s.givenByCard)
	api.GET("/looks/:word", s.look)
	api.GET("/looks/:word/:n", s.lookPicture)

	pictures := r.Group("/api", s.fromHere, s.whoIsCalling) // larger than other messages
	pictures.POST("/sessions/:id/pictures", s.addPicture)
	pictures.GET("/pictures/:id", s.picture)
	pictures.POST("/pictures", needTeacher, littleForGuests, s.fewForGuests, s.keepPicture)
	pictures.POST("/sounds", needTeacher, littleForGuests, s.fewForGuests, s.keepSound)
	pictures.POST("/sessions/:id/voices", needTeacher, littleForGuests, s.fewForGuests, s.keepVoice)
	pictures.POST("/sessions/:id/judgements", needTeacher, limitList, s.judge) // with what is drawn on the work
	pictures.POST("/intakes", needTeacher, littleForGuests, s.fewForGuests, s.bringIn)
	pictures.POST("/boards/file", needTeacher, littleForGuests, s.fewForGuests, s.importBoard)
	pictures.POST("/list", needMember, limitList, s.readList)
	pictures.POST("/list/file", needMember, s.inTurn, s.readListFile)
	pictures.POST("/classes", needMember, limitList, s.addClass)
	pictures.POST("/classes/:id/students", needMember, limitList, s.addStudents)
	pictures.POST("/register", needMember, s.inTurn, s.readRegister)
	r.GET("/api/paper", s.paper)

	mine := api.Group("/account", needAccount)
	mine.GET("", s.account)
	mine.POST("", s.setAccount)
	mine.POST("/password", s.setPassword)
	mine.POST("/second/new", s.newSecond)
	mine.POST("/second", s.setSecond)
	mine.GET("/file", s.accountFile)
	mine.DELETE("/sign-ins", s.endOtherSignIns)
	mine.DELETE("/sign-ins/:id", s.endSignIn)

	member := api.Group("", needMember)
	member.POST("/settings", s.setOwn)
	member.GET("/house", s.house)
	member.GET("/classes", s.classes)
	member.POST("/classes/:id", s.setClass)
	member.POST("/classes/:id/next", s.nextYear)
	member.POST("/classes/:id/plan", s.setPlan)
	member.POST("/classes/:id/teachers", s.teachTogether)
	member.POST("/classes/:id/keep", s.setKeep)
	member.GET("/classes/:id/students/:student/file", s.studentFile)
	member.DELETE("/classes/:id/students/:student", s.eraseStudent)
	member.GET("/classes/:id/mistakes", s.classMistakes)
	member.GET("/classes/:id/year", s.classYear)
	member.GET("/classes/:id/students/:student/year", s.studentYear)
	member.GET("/classes/:id/cards", s.cards)
	member.DELETE("/classes/:id/cards/:student", s.dropCard)
	member.POST("/classes/:id/students/:student", s.setStudent)
	member.POST("/classes/:id/students/:student/move", s.moveStudent)
	member.POST("/classes/:id/students/:student/merge", s.mergeStudents)
	member.GET("/sessions/:id/people/:participant/likely", s.likely)
	member.POST("/sessions/:id/people/:participant/student", s.tie)
	member.GET("/shared/:word", s.shared)
	member.POST("/shared/:word", s.takeShared)
	member.GET("/library", s.library)
	member.POST("/boards/:id/link", s.shareBoard)
	member.POST("/boards/:id/rehearsals", s.rehearse)

	staff := api.Group("", needMember, s.needAdministrator)
	staff.GET("/staff", s.staff)
	staff.POST("/staff/invitations", s.invite)
	staff.DELETE("/staff/invitations/:id", s.withdraw)
	staff.POST("/staff/people/:id", s.setStanding)
	staff.POST("/staff/people/:id/password", s.newPassword)
	staff.POST("/staff/people/:id/hand-over", s.handOver)
	staff.DELETE("/staff/people/:id/second", s.takeSecond)
	staff.DELETE("/staff/people/:id", s.eraseAccount)
	staff.GET("/persons", s.persons)
	staff.GET("/persons/:id/file", s.anyonesFile)
	staff.DELETE("/persons/:id", s.eraseAnyone)
	staff.POST("/house", s.setHouse)
	staff.GET("/journal", s.journal)

	teacher := api.Group("", needTeacher)
	teacher.GET("/boards", s.boards)
	teacher.POST("/boards", s.fewForGuests, s.newBoard)
	teacher.GET("/search", s.search)
	teacher.POST("/questions/try", s.tryQuestion)
	teacher.GET("/boards/:id", s.board)
	teacher.POST("/boards/:id/edits", s.editBoard)
	teacher.GET("/boards/:id/edits", s.boardChanges)
	teacher.POST("/boards/:id/frames", s.addFrames)
	teacher.POST("/boards/:id/card", s.setCard)
	teacher.POST("/boards/:id/copies", s.fewForGuests, s.copyBoard)
	teacher.POST("/boards/:id/templates", s.fewForGuests, s.addTemplate)
	teacher.POST("/boards/:id/sessions", s.fewForGuests, s.startSession)
	teacher.POST("/sessions/:id/rehearsal", s.rehearsing)
	teacher.DELETE("/sessions/:id/rehearsal", s.endRehearsal)
	teacher.POST("/boards/:id/tidy", s.tidyBoard)
	teacher.GET("/boards/:id/try", s.tryFrame)
	teacher.GET("/boards/:id/file", s.exportBoard)
	teacher.POST("/boards/:id/outputs", s.takeOutBoard)
	teacher.POST("/sessions/:id/outputs", s.takeOut)
	teacher.GET("/boards/:id/looks", s.looksOf)
	teacher.POST("/boards/:id/looks", s.fewForGuests, s.addLook)
	teacher.GET("/sessions/:id/looks", s.looksOf)
	teacher.POST("/sessions/:id/looks", s.fewForGuests, s.addLook)
	teacher.DELETE("/looks/:word", s.dropLook)
	teacher.GET("/outputs/:output", s.output)
	teacher.DELETE("/outputs/:output", s.dropOutput)
	teacher.GET("/outputs/:output/file", s.outputFile)
	teacher.GET("/boards/:id/questions", s.exportQuestions)
	teacher.GET("/intakes/:id", s.intake)
	teacher.DELETE("/intakes/:id", s.dropIntake)
	teacher.GET("/templates", s.templates)
	teacher.DELETE("/templates/:id", s.removeTemplate)
	teacher.POST("/library", s.fewForGuests, s.takeIllustration)
	teacher.GET("/illustrations/:id", s.illustration)
	teacher.GET("/sessions/:id/differences", s.differences)
	teacher.POST("/sessions/:id/take", s.takeIntoBoard)
	teacher.POST("/sessions/:id/fronts", s.showOn)
	teacher.DELETE("/sessions/:id/fronts", s.dropFronts)
	teacher.POST("/sessions/:id/end", s.endSession)
	teacher.POST("/sessions/:id/resume", s.resume)
	teacher.GET("/sessions/:id/report", s.report)
	teacher.GET("/sessions/:id/report.pdf", s.reportFile)
	teacher.GET("/sessions/:id/report.xlsx", s.reportFile)
	teacher.GET("/sessions/:id/report.csv", s.reportFile)
	teacher.POST("/sessions/:id/next", s.fewForGuests, s.nextLesson)
	teacher.GET("/sessions/:id/homework", s.homework)
	teacher.GET("/sessions/:id/record", s.record)
	teacher.GET("/sessions/:id/record/:participant", s.recordOfStudent)
	teacher.GET("/sessions/:id/frames/:frame", s.recordOfFrame)
	teacher.GET("/sessions/:id/judgements", s.judgements)
	teacher.POST("/sessions/:id/criteria", s.setCriteria)
	teacher.GET("/sessions/:id/letters", s.letters)
	teacher.GET("/sessions/:id/letters.pdf", s.lettersFile)
	teacher.GET("/sessions/:id/levels.csv", s.levelsFile)
	teacher.GET("/sessions/:id/levels.xlsx", s.levelsFile)
	teacher.POST("/sessions/:id/blind", s.setBlind)
	teacher.POST("/sessions/:id/given", s.giveBack)
	teacher.GET("/sessions/:id/record.csv", s.recordCSV)
	teacher.GET("/sessions/:id/answers.csv", s.answersFile)
	teacher.GET("/sessions/:id/answers.xlsx", s.answersFile)
	teacher.GET("/sessions/:id/alike", s.alike)
	teacher.GET("/sessions/:id/stills", s.stills)
	teacher.POST("/sessions/:id/stills", s.keepStill)
	teacher.DELETE("/sessions/:id/stills/:still", s.dropStill)
	teacher.GET("/sessions/:id/between", s.between)
	teacher.GET("/sessions/:id/past", s.timeline)
	teacher.GET("/sessions/:id/past/:after", s.moment)
	teacher.GET("/sessions/:id/coverage", s.coverage)
	teacher.GET("/sessions/:id/questions", s.questionsOf)
	teacher.GET("/sessions/:id/compare", s.compareLessons)
	teacher.GET("/sessions/:id/answers-alike", s.answersAlike)
	teacher.GET("/sessions/:id/line", s.line)
	teacher.GET("/sessions/:id/varied", s.varied)
	teacher.POST("/sessions/:id/people/:participant/name", s.renamePerson)
	teacher.GET("/sessions/:id/coverage.csv", s.coverageCSV)
	r.NoRoute(ui.serve)
	return r, nil
}

func (s *server) ready(c *gin.Context) {
	if err := s.Store.Ping(c.Request.Context()); err != nil {
		c.String(http.StatusServiceUnavailable, "the database does not answer\n")
		return
	}
	c.String(http.StatusOK, "ready\n")
}

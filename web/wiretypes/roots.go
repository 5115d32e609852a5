package main

import (
	"alpenglow/core/assess"
	"alpenglow/core/output"
	"alpenglow/core/paper"
	"alpenglow/core/prepare"
	"alpenglow/core/progress"
	"alpenglow/core/record"
	"alpenglow/core/report"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/core/voices"
	"alpenglow/live"
	"alpenglow/web"
)

// roots are the types to write, with all they refer to.
var roots = []any{
	// over realtime
	live.Connect{}, live.Failure{}, live.Hello{}, live.StudentHello{}, live.StaffHello{}, live.FrontHello{},
	live.Open{},
	live.Opened{}, live.Move{}, live.Moved{}, live.Since{}, sheet.Part{}, live.Ops{}, live.OpsReply{},
	live.CommandReply{}, live.Time{}, live.Sight{}, live.WalkTo{}, live.AtStop{}, live.AskOutcome{}, live.Outcomes{},
	live.AskVerdict{}, live.Verdict{}, live.AskResults{}, live.Results{}, live.Timeline{}, live.Moment{},
	live.News{}, live.Pass{}, live.Tidy{}, live.Tidied{}, sheet.Op{},
	session.Command{}, voices.Word{},
	// accounts
	web.SignIn{}, web.InvitationToken{}, web.Invited{}, web.Accept{}, web.Staff{}, web.Invite{}, web.InviteLink{},
	web.SetStanding{}, web.Account{}, web.SetAccount{}, web.SetPassword{}, web.Me{}, web.NewSecond{}, web.SetSecond{},
	web.Recovery{}, web.ResetPassword{}, web.HandOver{}, web.Journal{}, web.HouseReply{}, web.Mails{},
	// classes
	web.ClassBook{}, web.NameList{}, web.NameRows{}, web.ListText{}, web.NewClass{}, web.ClassMade{}, web.SetClass{},
	web.SetStudent{}, web.NextYear{}, web.TeachTogether{}, web.MoveStudent{}, web.MergeStudents{}, web.Cards{},
	web.RegisterLook{}, web.SetKeep{}, web.Receipt{}, web.AccountReceipt{}, web.Persons{}, web.ByCard{}, web.CameIn{},
	web.TieStudent{}, web.RenamePerson{}, web.LikelyStudents{},
	// boards and lessons
	web.Boards{}, web.StartSession{}, web.Started{}, web.Invitation{}, web.JoinCode{}, web.JoinFound{}, web.AtDoor{},
	web.FrontStands{}, web.Differences{}, web.FrontCode{}, web.Join{}, web.RecordReply{}, web.FrameRecord{}, web.Judgements{},
	assess.Said{}, web.JudgedNow{}, web.SetBlind{}, web.SetCriteria{}, web.GiveBack{}, assess.Back{}, web.GivenLessons{},
	web.Letters{}, web.Stills{}, web.KeepStill{}, web.TwoMoments{}, output.Wish{}, web.Making{}, web.Resume{},
	web.LessonReport{}, web.LookLink{}, web.LookLinks{}, web.Looked{}, web.ClassYear{}, progress.Year{},
	report.Wish{}, web.HomeworkOf{},
	record.Coverage{}, record.Line{}, record.Questions{}, record.Compared{}, web.MistakesOver{}, web.Alike{},
	web.Varied{}, web.TryQuestion{}, web.QuestionTried{}, web.QuestionFile{}, web.Recorded{}, web.Uploaded{},
	web.BoardReply{}, web.Found{}, web.NewBoard{}, web.BoardMade{}, web.SetCard{}, web.Shared{}, web.SharedBoard{},
	web.Edits{}, web.EditsReply{}, web.AddFrames{}, web.Intake{}, web.Rehearse{}, web.Rehearsing{},
	web.TakeIllustration{}, web.Templates{}, web.NewTemplate{}, web.Library{}, prepare.Edit{}, paper.Drawing{},
}

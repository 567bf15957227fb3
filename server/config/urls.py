"""Every address of the server: the API, and the page for all the rest."""

from django.urls import path, re_path

from server.api.errors import not_found
from server.archive import api as archive
from server.builds import api as builds
from server.builds import parts_api as parts_lists
from server.builds import templates_api as step_templates
from server.builds import usage
from server.config import health
from server.config.metrics import metrics
from server.config.page import page
from server.demo import api as demo
from server.designs import api as designs
from server.designs import cards, changing, evaluation, fit, history, sharing
from server.entrance import api as entrance
from server.entrance import devices_api as devices
from server.entrance import mail, reach
from server.parts import api as parts
from server.practice import api as practice
from server.practice import class_api as classes
from server.practice import races_api as racing
from server.runs import api as runs
from server.runs import comparing, plans
from server.runs import log_files_api as log_files
from server.runs import rig_api as rig
from server.searches import api as searches
from server.workshops import api as workshops

handler500 = "server.api.errors.server_error"

api = [
    path("session/", entrance.SessionView.as_view()),
    path("accounts/", entrance.SignUpView.as_view()),
    path("accounts/sign-in/", entrance.SignInView.as_view()),
    path("accounts/sign-out/", entrance.SignOutView.as_view()),
    path("accounts/password/", entrance.PasswordView.as_view()),
    path("accounts/devices/", devices.DevicesView.as_view()),
    path("accounts/devices/<uuid:device>/", devices.DeviceView.as_view()),
    path("accounts/deleting/", entrance.DeletingView.as_view()),
    path("accounts/forgotten/", mail.ForgottenView.as_view()),
    path("accounts/email/", mail.EmailView.as_view()),
    path("accounts/reset/", devices.ResetView.as_view()),
    path("reach/", reach.ReachView.as_view()),
    path("demo/", demo.DemoSignInView.as_view()),
    path("demo/vehicles/", demo.DemoVehiclesView.as_view()),
    path("demo/vehicles/<uuid:vehicle>/copies/", demo.DemoCopiesView.as_view()),
    path("vocabulary/", evaluation.VocabularyView.as_view()),
    path("live/", evaluation.LiveView.as_view()),
    path("sweep/", evaluation.SweepView.as_view()),
    path("changes/part/", changing.TakingView.as_view()),
    path("changes/kind/", changing.OtherKindView.as_view()),
    path("typical/", evaluation.TypicalView.as_view()),
    path("starts/", evaluation.StartsView.as_view()),
    path("uncertainties/", evaluation.UncertaintiesView.as_view()),
    path("working/", evaluation.WorkingView.as_view()),
    path("aids/", evaluation.AidView.as_view()),
    path("compare/", comparing.CompareView.as_view()),
    path("loads/", evaluation.LoadsView.as_view()),
    path("loads/day/", evaluation.LoadsDayView.as_view()),
    path("loads/helps/", evaluation.LoadsHelpsView.as_view()),
    path("loads/working/", evaluation.LoadsWorkingView.as_view()),
    path("instruments/lines/", runs.LinesView.as_view()),
    path("practice/", practice.PracticeView.as_view()),
    path("practice/exercise/", practice.ExerciseView.as_view()),
    path("practice/judge/", practice.JudgeView.as_view()),
    path("practice/solved/", practice.SolvedView.as_view()),
    path("practice/open/", practice.OpenView.as_view()),
    path("workshops/<uuid:workshop>/sets/", classes.SetsView.as_view()),
    path("sets/<uuid:which>/", classes.SetView.as_view()),
    path("sets/<uuid:which>/pupils/", classes.SetPupilsView.as_view()),
    path("sets/<uuid:which>/wall/<int:place>/", classes.WallView.as_view()),
    path("sets/<uuid:which>/sheet/", classes.SetSheetView.as_view()),
    path("workshops/<uuid:workshop>/races/", racing.RacesView.as_view()),
    path("races/<uuid:race>/", racing.RaceView.as_view()),
    path("class/", classes.ClassView.as_view()),
    path("class/joining/", classes.JoiningClassView.as_view()),
    path("class/exercises/<int:place>/", classes.ClassExerciseView.as_view()),
    path("grid/", evaluation.GridView.as_view()),
    path("turned-down/", evaluation.DutyLimitView.as_view()),
    path("workshops/", workshops.WorkshopsView.as_view()),
    path("workshops/<uuid:workshop>/", workshops.WorkshopView.as_view()),
    path("archives/", archive.ArchivesView.as_view()),
    path("archives/<uuid:archive>/", archive.ArchiveView.as_view()),
    path("archives/<uuid:archive>/pieces/<int:number>/", archive.ArchivePieceView.as_view()),
    path("workshops/<uuid:workshop>/archives/", archive.WorkshopArchivesView.as_view()),
    path("workshops/<uuid:workshop>/closing/", workshops.ClosingView.as_view()),
    path("workshops/<uuid:workshop>/erasing/", workshops.ErasingView.as_view()),
    path("workshops/<uuid:workshop>/leaving/", workshops.LeavingView.as_view()),
    path("workshops/<uuid:workshop>/invitations/", workshops.InvitationsView.as_view()),
    path("workshops/<uuid:workshop>/invitations/<uuid:invitation>/", workshops.InvitationView.as_view()),
    path("invitations/", workshops.RequestsView.as_view()),
    path("invitations/<uuid:invitation>/", workshops.RequestView.as_view()),
    path("joining/", workshops.JoiningView.as_view()),
    path("workshops/<uuid:workshop>/tokens/", workshops.TokensView.as_view()),
    path("workshops/<uuid:workshop>/tokens/<uuid:token>/", workshops.TokenView.as_view()),
    path("workshops/<uuid:workshop>/members/", workshops.MembersView.as_view()),
    path("workshops/<uuid:workshop>/members/<int:member>/", workshops.MemberView.as_view()),
    path("workshops/<uuid:workshop>/members/<int:member>/reset/", devices.ResetLinkView.as_view()),
    path("workshops/<uuid:workshop>/handing-over/", workshops.HandingOverView.as_view()),
    path("workshops/<uuid:workshop>/usage/", usage.UsageView.as_view()),
    path("workshops/<uuid:workshop>/vehicles/", designs.VehiclesView.as_view()),
    path("workshops/<uuid:workshop>/cards/", cards.CardsView.as_view()),
    path("workshops/<uuid:workshop>/parts/", parts.PartsView.as_view()),
    path("workshops/<uuid:workshop>/parts/bulk/", parts.BulkView.as_view()),
    path("workshops/<uuid:workshop>/parts/fits/", parts.FitsView.as_view()),
    path("workshops/<uuid:workshop>/parts/file/", parts.FileView.as_view()),
    path("workshops/<uuid:workshop>/parts/export/<str:suffix>/", parts.ExportView.as_view()),
    path("workshops/<uuid:workshop>/searches/", searches.SearchesView.as_view()),
    path("workshops/<uuid:workshop>/searches/survey/", searches.SurveyView.as_view()),
    path("workshops/<uuid:workshop>/fit/", fit.FitView.as_view()),
    path("workshops/<uuid:workshop>/fit/places/", fit.PlacesView.as_view()),
    path("workshops/<uuid:workshop>/fit/template/<str:kind>/", fit.TemplateView.as_view()),
    path("workshops/<uuid:workshop>/runs/", runs.LastRunsView.as_view()),
    path("workshops/<uuid:workshop>/orders/", parts_lists.OrdersView.as_view()),
    path("workshops/<uuid:workshop>/orders/export/<str:suffix>/", parts_lists.OrdersExportView.as_view()),
    path("workshops/<uuid:workshop>/step-templates/", step_templates.StepTemplatesView.as_view()),
    path("workshops/<uuid:workshop>/step-templates/<int:template>/", step_templates.StepTemplateView.as_view()),
    path("workshops/<uuid:workshop>/inverse/", searches.InverseView.as_view()),
    path("searches/<uuid:search>/", searches.SearchView.as_view()),
    path("searches/<uuid:search>/export/<str:suffix>/", searches.ExportView.as_view()),
    path("vehicles/<uuid:vehicle>/", designs.VehicleView.as_view()),
    path("vehicles/<uuid:vehicle>/sheet/", designs.SheetView.as_view()),
    path("vehicles/<uuid:vehicle>/shares/", sharing.SharesView.as_view()),
    path("vehicles/<uuid:vehicle>/shares/<uuid:share>/", sharing.ShareView.as_view()),
    path("shared/", sharing.SharedView.as_view()),
    path("shared/working/", sharing.SharedWorkingView.as_view()),
    path("vehicles/<uuid:vehicle>/copies/", designs.CopiesView.as_view()),
    path("vehicles/<uuid:vehicle>/newest/", designs.NewestView.as_view()),
    path("vehicles/<uuid:vehicle>/history/", history.HistoryView.as_view()),
    path("vehicles/<uuid:vehicle>/revisions/", designs.RevisionsView.as_view()),
    path("vehicles/<uuid:vehicle>/revisions/<int:number>/", designs.RevisionView.as_view()),
    path("vehicles/<uuid:vehicle>/runs/", runs.RunsView.as_view()),
    path("vehicles/<uuid:vehicle>/runs/file/", runs.RunsFileView.as_view()),
    path("vehicles/<uuid:vehicle>/runs/<uuid:run>/", runs.RunView.as_view()),
    path("vehicles/<uuid:vehicle>/readings/", runs.ReadingsView.as_view()),
    path("vehicles/<uuid:vehicle>/learnt/", runs.LearntView.as_view()),
    path("vehicles/<uuid:vehicle>/plan/", plans.PlanView.as_view()),
    path("vehicles/<uuid:vehicle>/plan/choices/", plans.PlanChoicesView.as_view()),
    path("vehicles/<uuid:vehicle>/files/", log_files.FilesView.as_view()),
    path("vehicles/<uuid:vehicle>/files/<uuid:file>/", log_files.FileView.as_view()),
    path("vehicles/<uuid:vehicle>/files/<uuid:file>/pieces/<int:number>/", log_files.PieceView.as_view()),
    path("vehicles/<uuid:vehicle>/parts-list/", parts_lists.PartsListView.as_view()),
    path("vehicles/<uuid:vehicle>/parts-list/working/", parts_lists.PriceWorkingView.as_view()),
    path("vehicles/<uuid:vehicle>/parts-list/entries/", parts_lists.PartEntriesView.as_view()),
    path("vehicles/<uuid:vehicle>/parts-list/file/", parts_lists.PartsImportView.as_view()),
    path("vehicles/<uuid:vehicle>/parts-list/export/<str:suffix>/", parts_lists.PartsExportView.as_view()),
    path("vehicles/<uuid:vehicle>/build/", builds.BuildView.as_view()),
    path("vehicles/<uuid:vehicle>/build/book/", builds.BookView.as_view()),
    path("vehicles/<uuid:vehicle>/build/entries/", builds.EntriesView.as_view()),
    path("vehicles/<uuid:vehicle>/build/pulse/", builds.PulseView.as_view()),
    path("vehicles/<uuid:vehicle>/build/calendar/", builds.CalendarView.as_view()),
    path("vehicles/<uuid:vehicle>/build/booklets/", builds.BookletsView.as_view()),
    path("vehicles/<uuid:vehicle>/build/booklets/<uuid:booklet>/", builds.BookletView.as_view()),
    path("vehicles/<uuid:vehicle>/build/booklets/<uuid:booklet>/file/", builds.BookletFileView.as_view()),
    path("vehicles/<uuid:vehicle>/build/photos/", builds.PhotosView.as_view()),
    path("vehicles/<uuid:vehicle>/build/photos/<uuid:photo>/", builds.PhotoView.as_view()),
    path("vehicles/<uuid:vehicle>/build/inspections/", builds.InspectionsView.as_view()),
    path("vehicles/<uuid:vehicle>/rig/", rig.RigView.as_view()),
    path("vehicles/<uuid:vehicle>/rig/stream/", rig.RigStreamView.as_view()),
]

urlpatterns = [
    path("healthz", health.alive),
    path("metrics", metrics),
    path("readyz", health.ready),
    *(path(f"api/{route.pattern}", route.callback) for route in api),
    re_path(r"^api/", not_found),
    # Whatever the page routes itself; an unknown address of the API or a missing file is not a page.
    re_path(r"^(?!api/|static/).*$", page),
]

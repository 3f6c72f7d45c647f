#include "app/steps/trace/trace_room.h"

#include <QMenu>

#include "app/actions.h"
#include "app/bench/bench.h"
#include "app/preferences.h"
#include "app/session.h"
#include "app/steps/rooms.h"
#include "app/steps/trace/reference_dialog.h"
#include "app/steps/trace/trace_panel.h"

namespace rim::app {

TraceActions::TraceActions(ActionBook& book) {
  const auto text = [](const char* source) { return TraceRoom::tr(source); };
  const auto here = Step::Trace;
  automatic =
      book.addCheckable(here, text("&Automatic threshold"), text("Part dark and light by Otsu's method"), onKey("A"));
  lightIsInk = book.addCheckable(here, text("&Light ink on dark"),
                                 text("Take the light part of the picture as the ink"), onKey("L"));
  darker = book.add(here, text("&Darker threshold"), text("Less is ink, when the ink is dark"), onKey("["));
  lighter = book.add(here, text("Li&ghter threshold"), text("More is ink, when the ink is dark"), onKey("]"));
  switchParts = book.addCheckable(here, text("S&witch single parts"),
                                  text("Click on a part: a line becomes an area, an area a line, whatever its width"),
                                  onKey("W"));
  deviation = book.addCheckable(here, text("&Distance from the border"),
                                text("Draw the outlines by how far they lie from the measured border"), onKey("D"));
  worst = book.add(here, text("&Go to the largest distance"),
                   text("Look at the place where the outline is farthest off"), onKey("G"));
  reference = book.add(here, text("&Keep as reference copy"),
                       text("Freeze these outlines, in grey, to compare others with"), onKey("R"));
  dropReference =
      book.add(here, text("D&rop the reference copy"), text("Take the grey outlines off the bench"), onKey("Shift+R"));
  book.note(here, text("Space, arrow keys"), text("With single parts: switch the one there, lead the cross"));
  book.note(here, text("Shift, held"), text("While a single part is switched: all ink that hangs together with it"));
}

TraceRoom::TraceRoom(const Workplace& at)
    : StepRoom(at, Step::Trace, tr("&Trace"), tr("From borders to outlines")),
      actions_(at.book),
      panel_(new TracePanel(at.session, actions_)) {
  for (BenchLayer* layer : std::initializer_list<BenchLayer*>{&references_, &distances_, &marks_})
    at_.bench.addLayer(layer);
  connect(actions_.automatic, &QAction::triggered, panel_, &TracePanel::setAutomatic);
  connect(actions_.lightIsInk, &QAction::triggered, &at_.session, [this](bool on) { takeLightAsInk(at_.session, on); });
  connect(actions_.switchParts, &QAction::toggled, this, [this](bool on) {
    if (on) emit at_.exchange.stepWanted(step());
    panel_->setSwitching(on);
  });
  connect(panel_, &TracePanel::toolChanged, &at_.bench, &Bench::setTool);
  connect(actions_.darker, &QAction::triggered, this, [this] { panel_->moveThreshold(-1); });
  connect(actions_.lighter, &QAction::triggered, this, [this] { panel_->moveThreshold(1); });
  connect(actions_.reference, &QAction::triggered, &at_.session, &Session::keepReference);
  connect(actions_.dropReference, &QAction::triggered, &at_.session, &Session::dropReference);
  connect(at_.actions.references, &QAction::triggered, this, &TraceRoom::openReferences);
  connectDeviation();
}

QWidget* TraceRoom::panel() { return panel_; }

void TraceRoom::fillMenu(QMenu& menu) {
  menu.addActions({actions_.automatic, actions_.lightIsInk, actions_.darker, actions_.lighter, actions_.switchParts});
  menu.addSeparator();
  menu.addActions({actions_.deviation, actions_.worst});
  menu.addSeparator();
  menu.addActions({actions_.reference, actions_.dropReference, at_.actions.references});
}

CardLine TraceRoom::cardLine() const {
  if (at_.session.job().drawing) return {tr("as in the drawing"), true};
  return {TracePanel::stateLine(at_.session), hasOutlines()};
}

void TraceRoom::show() {
  showReferences();
  followDeviation();
  panel_->show();
  showAllowed();
}

void TraceRoom::showAllowed() {
  const job::Job& job = at_.session.job();
  const bool picture = at_.session.hasPicture();
  const bool inks = picture && job.colours.on;
  const QString twoTones = tr("This is for two tones; the picture has several inks now.");
  for (QAction* action : {actions_.automatic, actions_.lightIsInk, actions_.darker, actions_.lighter})
    allow(action, picture && !inks, inks ? twoTones : needsPicture());
  const bool mixed = picture && !inks && job.trace.method == trace::TraceMethod::Mixed;
  allow(actions_.switchParts, mixed, tr("This is for pictures of which lines and areas are made: choose Both."));
  if (!mixed) actions_.switchParts->setChecked(false);
  actions_.automatic->setChecked(picture && !job.trace.threshold);
  actions_.lightIsInk->setChecked(picture && job.trace.lightIsInk);
  const bool outlines = hasOutlines();
  const QString needsBorder = inks ? twoTones : picture ? needsOutlines() : needsPicture();
  allow(actions_.deviation, picture && !inks && (outlines || actions_.deviation->isChecked()), needsBorder);
  if (inks) actions_.deviation->setChecked(false);
  allow(actions_.worst, outlines && picture && !inks, needsBorder);
  allow(actions_.reference, outlines, needsOutlines());
  allow(actions_.dropReference, at_.session.reference() != nullptr, tr("No reference copy was kept."));
}

bool TraceRoom::putToolAway() {
  const bool there = actions_.switchParts->isChecked();
  actions_.switchParts->setChecked(false);
  return there;
}

void TraceRoom::follow() {
  if (!isHere()) actions_.switchParts->setChecked(false);
}

void TraceRoom::connectDeviation() {
  connect(actions_.deviation, &QAction::toggled, this, &TraceRoom::followDeviation);
  connect(actions_.worst, &QAction::triggered, this, &TraceRoom::lookAtWorst);
  connect(&at_.session, &Session::deviationMeasured, this, &TraceRoom::takeDeviation);
}

/// Measures anew when the outlines have changed while distances are shown.
void TraceRoom::followDeviation() {
  const bool wanted = actions_.deviation->isChecked() || lookAtWorst_;
  const auto& tracing = at_.session.job().tracing;
  if (deviationOf_ != tracing) deviation_.reset();
  const bool hasAny = deviation_ && !deviation_->outlines.empty();
  distances_.set(hasAny && actions_.deviation->isChecked() ? deviation_ : nullptr, at_.session.job().trace.tolerancePx);
  panel_->showDeviation(actions_.deviation->isChecked() ? deviation_ : nullptr);
  if (!wanted || !tracing || deviationOf_ == tracing) return;
  deviationOf_ = tracing;
  at_.session.measureDeviation();
}

void TraceRoom::takeDeviation(std::shared_ptr<const trace::Deviation> deviation) {
  if (at_.session.job().tracing != deviationOf_) return;
  deviation_ = std::move(deviation);
  if (lookAtWorst_) {
    lookAtWorst_ = false;
    lookAtWorst();
  }
  followDeviation();
}

void TraceRoom::lookAtWorst() {
  if (!deviation_ || deviationOf_ != at_.session.job().tracing) {
    lookAtWorst_ = true;
    followDeviation();
    return;
  }
  constexpr double kNear = 16;  // screen px per picture px
  actions_.deviation->setChecked(true);
  if (!deviation_->outlines.empty()) at_.bench.lookAt(deviation_->worst, kNear);
}

void TraceRoom::showReferences() {
  std::vector<std::shared_ptr<const Drawing>> shown;
  for (const job::Reference& reference : at_.session.job().references) {
    if (reference.shown) shown.push_back(reference.outlines);
  }
  references_.set(shown);
}

void TraceRoom::openReferences() {
  auto* dialog = at_.window.findChild<ReferenceDialog*>();
  if (dialog == nullptr) {
    dialog = new ReferenceDialog(at_.session, &at_.window);
    connect(dialog, &ReferenceDialog::marked, &marks_, &MarkLayer::set);
    constexpr double kSightMm = 20;
    connect(dialog, &ReferenceDialog::lookedAt, this, [this](Point place) { lookAt(place, kSightMm); });
  }
  dialog->show(at_.preferences.unit);
  dialog->raise();
}

}  // namespace rim::app

#include "app/steps/colours/colours_room.h"

#include <QMenu>
#include <opencv2/core.hpp>

#include "app/bench/bench.h"
#include "app/preferences.h"
#include "app/session.h"
#include "app/steps/colours/colours_panel.h"
#include "app/steps/rooms.h"

namespace rim::app {
namespace {

/// The colours of the inks by their numbers; of those that are not lit little is left.
cv::Mat coloursOf(const colour::InkMap& inks, int lit) {
  constexpr double kPale = 0.16;
  cv::Mat colours(1, 256, CV_8UC3, cv::Scalar(255, 255, 255));
  for (std::size_t i = 0; i < inks.inks.size(); ++i) {
    const colour::Rgb c = inks.inks[i].colour;
    const double own = lit < 0 || lit == static_cast<int>(i) ? 1 : kPale;
    const auto channel = [own](int value) { return cv::saturate_cast<std::uint8_t>(255 - own * (255 - value)); };
    colours.at<cv::Vec3b>(0, static_cast<int>(i)) = {channel(c.b), channel(c.g), channel(c.r)};
  }
  return colours;
}

}  // namespace

ColoursActions::ColoursActions(ActionBook& book) {
  const auto text = [](const char* source) { return ColoursRoom::tr(source); };
  severalInks = book.addCheckable(Step::Colours, text("&Several inks"),
                                  text("Part the picture by its colours instead of dark and light"), onKey("I"));
  sweep = book.addCheckable(Step::Colours, text("S&weep"),
                            text("Draw across whatever shall become one ink; Esc puts the sweep away"), onKey("W"));
  mergeLikest = book.add(Step::Colours, text("&Merge the two likest inks"),
                         text("Take the suggestion that differs least"), onKey("J"));
  book.note(Step::Colours, text("Space, arrow keys"), text("With the sweep: begin and end it, lead the cross"));
  book.note(Step::Colours, text("M, F2"), text("On the board of inks: merge with the next one chosen, rename"));
}

ColoursRoom::ColoursRoom(const Workplace& at)
    : StepRoom(at, Step::Colours, tr("&Colours"), tr("Two tones or several inks, and what is kept of them")),
      actions_(at.book),
      panel_(new ColoursPanel(at.session, actions_)) {
  connect(actions_.severalInks, &QAction::triggered, this, [this](bool on) {
    emit at_.exchange.stepWanted(step());
    panel_->setSeveralInks(on);
  });
  connect(actions_.mergeLikest, &QAction::triggered, panel_, &ColoursPanel::mergeLikest);
  connect(actions_.sweep, &QAction::toggled, this, [this](bool on) {
    if (on) emit at_.exchange.stepWanted(step());
    panel_->setSweeping(on);
  });
  connect(panel_, &ColoursPanel::toolChanged, &at_.bench, &Bench::setTool);
  connect(panel_, &ColoursPanel::hovered, this, &ColoursRoom::lightInk);
  connect(&at_.session, &Session::inksFound, this, [this] {
    showInks();
    showAllowed();
    emit at_.exchange.measuresChanged();
  });
  connect(panel_, &ColoursPanel::opensInInksChanged, this, [this](bool on) {
    at_.session.setOpensInInks(on);
    at_.preferences.opensInInks = on;
    savePreferences(at_.preferences);
  });
  panel_->setOpensInInks(at_.preferences.opensInInks);
  at_.session.setOpensInInks(at_.preferences.opensInInks);
}

QWidget* ColoursRoom::panel() { return panel_; }

void ColoursRoom::fillMenu(QMenu& menu) {
  menu.addActions({actions_.severalInks, actions_.sweep, actions_.mergeLikest});
}

CardLine ColoursRoom::cardLine() const {
  const job::Job& job = at_.session.job();
  if (job.drawing) return {tr("as in the drawing"), true};
  return {ColoursPanel::stateLine(at_.session), at_.session.hasPicture() && (!job.colours.on || job.inks)};
}

void ColoursRoom::show() {
  panel_->show();
  showInks();
  showAllowed();
}

void ColoursRoom::showAllowed() {
  const bool picture = at_.session.hasPicture();
  const bool inks = picture && at_.session.job().colours.on;
  const QString twoTones = tr("Choose several inks first.");
  allow(actions_.severalInks, picture, needsPicture());
  allow(actions_.sweep, inks && at_.session.job().inks, twoTones);
  if (!inks) allow(actions_.mergeLikest, false, twoTones);
  actions_.severalInks->setChecked(inks);
}

void ColoursRoom::showInks() {
  const auto inks = isHere() && at_.session.job().colours.on ? at_.session.job().inks : nullptr;
  if (inks == shown_) return;
  shown_ = inks;
  lit_ = -1;
  at_.bench.setInks(shown_ ? shown_->labels : nullptr, shown_ ? coloursOf(*shown_, lit_) : cv::Mat());
}

void ColoursRoom::lightInk(int ink) {
  if (ink == lit_) return;
  lit_ = ink;
  if (shown_) at_.bench.setInks(shown_->labels, coloursOf(*shown_, lit_));
}

bool ColoursRoom::putToolAway() {
  const bool there = actions_.sweep->isChecked();
  actions_.sweep->setChecked(false);
  return there;
}

void ColoursRoom::follow() {
  if (!isHere()) actions_.sweep->setChecked(false);
  showInks();
}

}  // namespace rim::app

#include "app/steps/refine/hand/arrange_bar.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QSignalBlocker>

#include "app/steps/refine/hand/copies_dialog.h"
#include "app/steps/refine/refine_text.h"
#include "app/widgets/length_field.h"
#include "core/error.h"
#include "core/refine/edit/parts.h"

namespace rim::app {
namespace {

constexpr double kSizeToleranceMm = 0.001;
constexpr double kFarthestMm = 1e6;
constexpr double kLeastMm = 0.001;
constexpr double kFullTurn = 360;
constexpr double kCopyGapMm = 5;

}  // namespace

ArrangeBar::ArrangeBar(QWidget* parent) : QWidget(parent) {
  buildFields();
  buildTurn();
  buildMenu();
}

void ArrangeBar::buildFields() {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(6);
  grid->setColumnStretch(1, 1);
  grid->setColumnStretch(3, 1);
  const auto field = [this, grid](const char* name, const QString& label, const QString& tip, int row, int column) {
    auto* one = new LengthField;
    one->setObjectName(name);
    one->setToolTip(tip);
    one->setAccessibleName(tip);
    auto* text = new QLabel(label);
    text->setBuddy(one);
    grid->addWidget(text, row, 2 * column);
    grid->addWidget(one, row, 2 * column + 1);
    connect(one, &LengthField::refused, this, &ArrangeBar::refused);
    return one;
  };
  x_ = field("chosenX", tr("&x"), tr("Where the chosen outlines lie, from the left"), 0, 0);
  y_ = field("chosenY", tr("&y"), tr("Where the chosen outlines lie, from below"), 0, 1);
  width_ = field("chosenWidth", tr("w&ide"), tr("How wide the chosen outlines are"), 1, 0);
  height_ = field("chosenHeight", tr("&high"), tr("How high the chosen outlines are"), 1, 1);
  for (LengthField* place : {x_, y_}) place->setRange(-kFarthestMm, kFarthestMm);
  for (LengthField* size : {width_, height_}) size->setRange(kLeastMm, kFarthestMm);
  hold_ = new QComboBox;
  hold_->setObjectName("chosenHold");
  // In the order of enum Hold.
  hold_->addItems({tr("lower left"), tr("lower middle"), tr("lower right"), tr("left"), tr("middle"), tr("right"),
                   tr("upper left"), tr("upper middle"), tr("upper right")});
  hold_->setToolTip(tr("The point of the box round them that x and y mean, and that stays where it is"));
  connect(hold_, &QComboBox::currentIndexChanged, this, [this] { show(chosen_, unit_); });
  hold_->setMinimumContentsLength(6);
  hold_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  grid->addWidget(new QLabel(tr("held at")), 2, 0);
  grid->addWidget(hold_, 2, 1);
  auto* more = new QPushButton(tr("Arran&ge"));
  more->setObjectName("arrange");
  menu_ = new QMenu(more);
  more->setMenu(menu_);
  grid->addWidget(more, 2, 2, 1, 2);
  const auto held = [this] { return refine::pointOf(boxOf(chosen_), hold()); };
  connect(x_, &LengthField::entered, this, [this, held](double mm) {
    doAll(tr("Place"), [this, held, mm](const Drawing& all) { return refine::placed(all, {mm, held().y}, hold()); });
  });
  connect(y_, &LengthField::entered, this, [this, held](double mm) {
    doAll(tr("Place"), [this, held, mm](const Drawing& all) { return refine::placed(all, {held().x, mm}, hold()); });
  });
  connect(width_, &LengthField::entered, this, [this](double mm) {
    doAll(tr("Size"), [this, mm](const Drawing& all) {
      return refine::sizedTo(all, hold(), mm, kept(boxOf(all).height()), kSizeToleranceMm);
    });
  });
  connect(height_, &LengthField::entered, this, [this](double mm) {
    doAll(tr("Size"), [this, mm](const Drawing& all) {
      return refine::sizedTo(all, hold(), kept(boxOf(all).width()), mm, kSizeToleranceMm);
    });
  });
}

void ArrangeBar::buildTurn() {
  auto* grid = static_cast<QGridLayout*>(layout());
  turn_ = new QDoubleSpinBox;
  turn_->setObjectName("chosenTurn");
  turn_->setRange(-kFullTurn, kFullTurn);
  turn_->setDecimals(3);
  turn_->setSuffix(QStringLiteral("°"));
  turn_->setButtonSymbols(QAbstractSpinBox::NoButtons);
  turn_->setKeyboardTracking(false);
  turn_->setToolTip(tr("By how much the chosen outlines are turned about the point that is held, to the left"));
  turn_->setAccessibleName(turn_->toolTip());
  auto* label = new QLabel(tr("tur&n by"));
  label->setBuddy(turn_);
  grid->addWidget(label, 3, 0);
  grid->addWidget(turn_, 3, 1);
  inProportion_ = new QCheckBox(tr("in proportion"));
  inProportion_->setObjectName("inProportion");
  inProportion_->setChecked(true);
  inProportion_->setToolTip(tr("Width and height follow each other"));
  grid->addWidget(inProportion_, 3, 2, 1, 2);
  connect(turn_, &QDoubleSpinBox::valueChanged, this, [this](double degrees) {
    if (degrees == 0) return;
    const QSignalBlocker quiet(turn_);
    turn_->setValue(0);
    doAll(tr("Turn"), [this, degrees](const Drawing& all) {
      return refine::rotated(all, degrees, refine::pointOf(boxOf(all), hold()));
    });
  });
}

/// The extent that is not typed, where it stays; nothing: it follows, or there is none.
std::optional<double> ArrangeBar::kept(double extent) const {
  return inProportion_->isChecked() || extent == 0 ? std::nullopt : std::optional(extent);
}

void ArrangeBar::offer(const QString& name, const std::function<Drawing(const Drawing&)>& what) {
  menu_->addAction(name, this, [this, name, what] { doAll(QString(name).remove('&'), what); });
}

void ArrangeBar::offerCombining() {
  const auto combine = [this](const QString& name, refine::AreaRule rule) {
    offer(name, [rule](const Drawing& all) { return refine::combinedAreas(all, rule); });
  };
  combine(tr("&Unite them"), refine::AreaRule::Unite);
  combine(tr("&Take the smaller from the largest"), refine::AreaRule::Subtract);
  combine(tr("Keep what &both cover"), refine::AreaRule::Intersect);
  combine(tr("Keep what only &one covers"), refine::AreaRule::Exclude);
  offer(tr("&Cut the largest along the others"), [](const Drawing& all) { return refine::cutAlongOthers(all); });
}

void ArrangeBar::offerLiningUp() {
  const auto align = [this](const QString& name, refine::BoxSide side) {
    offer(name, [side](const Drawing& all) { return refine::alignedBy(all, side); });
  };
  align(tr("Line up at the left"), refine::BoxSide::Left);
  align(tr("Line up in the middle, upright"), refine::BoxSide::Middle);
  align(tr("Line up at the right"), refine::BoxSide::Right);
  align(tr("Line up below"), refine::BoxSide::Lower);
  align(tr("Line up in the middle, level"), refine::BoxSide::Centre);
  align(tr("Line up above"), refine::BoxSide::Upper);
  offer(tr("Centre on the &largest"), [](const Drawing& all) { return refine::centredOnLargest(all); });
}

void ArrangeBar::buildMenu() {
  offerCombining();
  menu_->addSeparator();
  const auto stroke = [this](const QString& name, mend::DoubleRule keep) {
    offer(name, [keep](const Drawing& all) {
      constexpr double kAnyWidthMm = 1e4;
      Drawing lines = refine::strokesTo(all, {keep, kAnyWidthMm});
      if (lines.outlines.size() == all.outlines.size() && changedOutlines(all, lines).empty())
        throw InputError("none of these was drawn as a stroke.");
      return lines;
    });
  };
  stroke(tr("Only the &outer edge of strokes"), mend::DoubleRule::Outer);
  stroke(tr("Only the &inner edge of strokes"), mend::DoubleRule::Inner);
  stroke(tr("The mi&ddle line of strokes"), mend::DoubleRule::Centre);
  menu_->addSeparator();
  offer(tr("Turn a quarter to the &left"), [](const Drawing& all) { return refine::rotated(all, 90); });
  offer(tr("Turn a quarter to the &right"), [](const Drawing& all) { return refine::rotated(all, -90); });
  offer(tr("Mirror left and right"), [](const Drawing& all) { return refine::mirrored(all, true); });
  offer(tr("Mirror top and bottom"), [](const Drawing& all) { return refine::mirrored(all, false); });
  menu_->addSeparator();
  offerLiningUp();
  menu_->addSeparator();
  offer(tr("Even gaps, side by side"), [](const Drawing& all) { return refine::spacedEvenly(all, true); });
  offer(tr("Even gaps, one above the other"), [](const Drawing& all) { return refine::spacedEvenly(all, false); });
  menu_->addSeparator();
  menu_->addAction(tr("&Rows of copies…"), this, [this] { makeCopies(refine::Array{2, 1, {kCopyGapMm, kCopyGapMm}}); });
  menu_->addAction(tr("Copies on a c&ircle…"), this, [this] {
    const Box box = boxOf(chosen_);
    const Point below{lerp(box.low, box.high, 0.5).x, box.low.y - box.height()};
    makeCopies(refine::ArrayRound{6, below});
  });
}

void ArrangeBar::makeCopies(refine::Step step) {
  if (chosen_.outlines.empty()) return;
  CopiesDialog dialog(std::move(step), unit_, this);
  if (dialog.exec() != QDialog::Accepted) return;
  const refine::Step wished = dialog.step();
  doAll(refineName(wished), [&wished](const Drawing& all) {
    return refine::copiesBehindTheirs(refine::done(all, wished).drawing, all.outlines.size());
  });
}

refine::Hold ArrangeBar::hold() const { return static_cast<refine::Hold>(hold_->currentIndex()); }

void ArrangeBar::show(Drawing chosen, Unit unit) {
  chosen_ = std::move(chosen);
  unit_ = unit;
  setEnabled(!chosen_.outlines.empty());
  if (chosen_.outlines.empty()) return;
  const Box box = boxOf(chosen_);
  const Point at = refine::pointOf(box, hold());
  x_->show(at.x, unit);
  y_->show(at.y, unit);
  width_->show(box.width(), unit);
  height_->show(box.height(), unit);
}

void ArrangeBar::doAll(const QString& name, const std::function<Drawing(const Drawing&)>& what) {
  if (chosen_.outlines.empty()) return;
  try {
    emit arranged(name, what(chosen_));
  } catch (const InputError& error) {
    emit refused(tr("%1: %2").arg(name, QString::fromUtf8(error.what())));
  }
}

}  // namespace rim::app

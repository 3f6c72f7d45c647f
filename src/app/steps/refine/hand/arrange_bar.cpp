#include "app/steps/refine/hand/arrange_bar.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QSignalBlocker>
#include <numbers>

#include "app/widgets/length_field.h"
#include "core/error.h"

namespace rim::app {
namespace {

constexpr double kToleranceMm = 0.001;
constexpr double kFarthestMm = 1e6;
constexpr double kLeastMm = 0.001;

}  // namespace

ArrangeBar::ArrangeBar(QWidget* parent) : QWidget(parent) {
  buildFields();
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
  width_ = field("chosenWidth", tr("w&ide"), tr("How wide the chosen outlines are; the height follows"), 1, 0);
  height_ = field("chosenHeight", tr("&high"), tr("How high the chosen outlines are; the width follows"), 1, 1);
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
  connect(x_, &LengthField::entered, this, [this](double mm) {
    doAll(tr("Place"), [this, mm](const auto& paths) { return refine::placedAt(paths, hold(), mm, {}); });
  });
  connect(y_, &LengthField::entered, this, [this](double mm) {
    doAll(tr("Place"), [this, mm](const auto& paths) { return refine::placedAt(paths, hold(), {}, mm); });
  });
  connect(width_, &LengthField::entered, this, [this](double mm) {
    doAll(tr("Size"), [this, mm](const auto& paths) { return refine::sizedTo(paths, hold(), mm, {}, kToleranceMm); });
  });
  connect(height_, &LengthField::entered, this, [this](double mm) {
    doAll(tr("Size"), [this, mm](const auto& paths) { return refine::sizedTo(paths, hold(), {}, mm, kToleranceMm); });
  });
}

void ArrangeBar::buildMenu() {
  const auto rule = [this](const QString& name, AreaRule what) {
    menu_->addAction(name, this, [this, name, what] { combine(QString(name).remove('&'), what); });
  };
  rule(tr("&Unite them"), AreaRule::Unite);
  rule(tr("&Take the smaller from the largest"), AreaRule::Subtract);
  rule(tr("Keep what &both cover"), AreaRule::Intersect);
  rule(tr("Keep what only &one covers"), AreaRule::Exclude);
  menu_->addSeparator();
  const auto turn = [this](const QString& name, const Affine& map) {
    menu_->addAction(name, this, [this, name, map] {
      doAll(QString(name).remove('&'), [map](const refine::SomePaths& paths) {
        const Point middle = pointOf(refine::boxOf(paths), Hold::Centre);
        return refine::mapped(paths, about(middle, map), kToleranceMm);
      });
    });
  };
  turn(tr("Turn a quarter to the &left"), rotation(std::numbers::pi / 2));
  turn(tr("Turn a quarter to the &right"), rotation(-std::numbers::pi / 2));
  turn(tr("Mirror left and right"), scale(-1, 1));
  turn(tr("Mirror top and bottom"), scale(1, -1));
  menu_->addSeparator();
  const auto side = [this](const QString& name, refine::BoxSide what) {
    menu_->addAction(name, this, [this, name, what] {
      doAll(name, [what](const auto& paths) { return refine::alignedBy(paths, what); });
    });
  };
  side(tr("Line up at the left"), refine::BoxSide::Left);
  side(tr("Line up in the middle, upright"), refine::BoxSide::Middle);
  side(tr("Line up at the right"), refine::BoxSide::Right);
  side(tr("Line up below"), refine::BoxSide::Lower);
  side(tr("Line up in the middle, level"), refine::BoxSide::Centre);
  side(tr("Line up above"), refine::BoxSide::Upper);
  menu_->addSeparator();
  for (const bool level : {true, false}) {
    const QString name = level ? tr("Even gaps, side by side") : tr("Even gaps, one above the other");
    menu_->addAction(name, this, [this, name, level] {
      doAll(name, [level](const auto& paths) { return refine::spacedEvenly(paths, level); });
    });
  }
}

Hold ArrangeBar::hold() const { return static_cast<Hold>(hold_->currentIndex()); }

void ArrangeBar::show(refine::SomePaths chosen, Unit unit) {
  chosen_ = std::move(chosen);
  unit_ = unit;
  setEnabled(!chosen_.empty());
  if (chosen_.empty()) return;
  const Box box = refine::boxOf(chosen_);
  const Point at = pointOf(box, hold());
  x_->show(at.x, unit);
  y_->show(at.y, unit);
  width_->show(box.width(), unit);
  height_->show(box.height(), unit);
}

void ArrangeBar::doAll(const QString& name, const std::function<refine::SomePaths(const refine::SomePaths&)>& what) {
  if (chosen_.empty()) return;
  try {
    std::vector<refine::SomePaths> became;
    for (Path& path : what(chosen_)) became.push_back({std::move(path)});
    emit arranged(name, became);
  } catch (const InputError& error) {
    emit refused(QString::fromUtf8(error.what()));
  }
}

void ArrangeBar::combine(const QString& name, AreaRule rule) {
  try {
    emit arranged(name, refine::combinedAreas(chosen_, rule));
  } catch (const InputError& error) {
    emit refused(tr("They cannot be combined: %1").arg(QString::fromUtf8(error.what())));
  }
}

}  // namespace rim::app

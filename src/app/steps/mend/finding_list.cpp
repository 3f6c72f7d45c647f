#include "app/steps/mend/finding_list.h"

#include <QHeaderView>
#include <QPainter>
#include <QSignalBlocker>
#include <algorithm>

#include "app/bench/corner_brackets.h"
#include "app/bench/outline_layer.h"
#include "app/look.h"
#include "app/widgets/finding_text.h"
#include "app/widgets/length_text.h"
#include "core/mend/repair/tidy.h"

namespace rim::app {
namespace {

constexpr int kNumber = Qt::UserRole;
constexpr QSize kPictureSize(52, 36);
constexpr std::size_t kMostOfAKind = 5000;

}  // namespace

/// A row whose picture is drawn when it comes into sight.
class FindingList::Row : public QTreeWidgetItem {
 public:
  Row(QTreeWidgetItem* group, const FindingList& list, std::size_t number)
      : QTreeWidgetItem(group), list_(list), number_(number) {
    constexpr int kRoom = 4;
    setSizeHint(0, kPictureSize.grownBy({0, 0, 0, kRoom}));  // else every picture would be asked for at once
  }

  QVariant data(int column, int role) const override {
    if (role == kNumber) return static_cast<qulonglong>(number_);
    if (role != Qt::DecorationRole || column != 0) return QTreeWidgetItem::data(column, role);
    if (picture_.isNull()) picture_ = QIcon(list_.pictureOf(number_));
    return picture_;
  }

 private:
  const FindingList& list_;
  std::size_t number_;
  mutable QIcon picture_;
};

FindingList::FindingList(QWidget* parent) : QTreeWidget(parent) {
  setObjectName("findings");
  setAccessibleName(tr("Findings"));
  setHeaderHidden(true);
  setRootIsDecorated(true);
  setIndentation(10);
  setIconSize(kPictureSize);
  setMinimumHeight(220);
  setTextElideMode(Qt::ElideRight);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  connect(this, &QTreeWidget::currentItemChanged, this, &FindingList::chosen);
}

void FindingList::show(std::shared_ptr<const std::vector<mend::Finding>> findings, const Drawing& drawing, bool bySize,
                       Unit unit) {
  const QSignalBlocker quiet(this);
  clear();
  order_.clear();
  items_.clear();
  findings_ = std::move(findings);
  drawing_ = mend::oriented(drawing);  // the small pictures tell holes by the way they run
  if (!findings_) return;
  for (std::size_t i = 0; i < findings_->size(); ++i) order_.push_back(i);
  std::stable_sort(order_.begin(), order_.end(), [this, bySize](std::size_t a, std::size_t b) {
    const mend::Finding& f = (*findings_)[a];
    const mend::Finding& g = (*findings_)[b];
    return f.kind != g.kind ? f.kind < g.kind : bySize && f.sizeMm > g.sizeMm;
  });
  for (std::size_t k = 0; k < mend::kFindingKinds; ++k) addGroup(static_cast<mend::FindingKind>(k), unit);
}

void FindingList::addGroup(mend::FindingKind kind, Unit unit) {
  QTreeWidgetItem* group = nullptr;
  std::size_t count = 0;
  for (std::size_t number = items_.size(); number < order_.size(); ++number) {
    const mend::Finding& finding = (*findings_)[order_[number]];
    if (finding.kind != kind) break;
    if (group == nullptr) {
      group = new QTreeWidgetItem(this);
      group->setFlags(Qt::ItemIsEnabled);
      group->setExpanded(true);
      group->setFont(0, fontLike(0, QFont::Bold));
    }
    items_.push_back(nullptr);
    if (++count > kMostOfAKind) continue;
    auto* row = new Row(group, *this, number);
    constexpr double kNothingMm = 0.0005;
    // Where there is nothing to measure the place tells rows apart.
    const QString size = finding.sizeMm > kNothingMm
                             ? QString::fromStdString(mend::sizeText(finding.sizeMm, unit))
                             : tr("at %1, %2").arg(lengthText(finding.at.x, unit), lengthText(finding.at.y, unit));
    row->setText(0, QStringLiteral("%1   %2").arg(number + 1).arg(size));
    row->setToolTip(0, QString::fromStdString(mend::sentenceOf(finding, unit)));
    items_.back() = row;
  }
  if (group == nullptr) return;
  group->setText(0, QStringLiteral("%1  (%2)").arg(kindText(kind)).arg(count));
  if (count <= kMostOfAKind) return;
  auto* more = new QTreeWidgetItem(group);
  more->setFlags(Qt::ItemIsEnabled);
  more->setText(0, tr("and %1 more, listed as these are mended").arg(count - kMostOfAKind));
}

/// What is round a finding: its outlines, with a mark in the middle.
QPixmap FindingList::pictureOf(std::size_t number) const {
  const mend::Finding& finding = (*findings_)[order_[number]];
  QPixmap picture(kPictureSize);
  picture.fill(look().sheet);
  QPainter painter(&picture);
  painter.setRenderHint(QPainter::Antialiasing);
  Paths outlines;
  for (const Outline& outline : drawing_.outlines) {
    if (outline.id == finding.outline || outline.id == finding.other) outlines.push_back(outline.path());
  }
  constexpr double kLeastSightMm = 1;
  const double half = std::max(kLeastSightMm, 1.6 * finding.sizeMm);
  rim::Box sight;
  sight.include(finding.at - Point{half, half});
  sight.include(finding.at + Point{half, half});
  OutlineLayer(outlines).paint(painter, Viewport::fitting(sight, QRectF(QPointF(), kPictureSize)), picture.rect(),
                               false);
  constexpr double kHalfMarkPx = 8;
  paintBrackets(painter, QPointF(kPictureSize.width() / 2.0, kPictureSize.height() / 2.0), kHalfMarkPx, look().node);
  return picture;
}

std::optional<std::size_t> FindingList::current() const {
  const QTreeWidgetItem* item = currentItem();
  if (item == nullptr || !item->data(0, kNumber).isValid()) return {};
  return static_cast<std::size_t>(item->data(0, kNumber).toULongLong());
}

void FindingList::choose(std::size_t number) {
  if (number < items_.size() && items_[number] != nullptr) setCurrentItem(items_[number]);
}

void FindingList::step(int by) {
  const auto count = static_cast<int>(items_.size());
  if (count == 0) return;
  const auto now = current();
  int next = now ? static_cast<int>(*now) : (by > 0 ? -1 : 0);
  for (int tries = 0; tries < count; ++tries) {
    next = (next + by + count) % count;
    if (items_[static_cast<std::size_t>(next)] == nullptr) continue;
    choose(static_cast<std::size_t>(next));
    return;
  }
}

}  // namespace rim::app

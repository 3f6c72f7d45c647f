#include "app/steps/trace/reference_dialog.h"

#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/widgets/counted.h"
#include "app/widgets/length_text.h"
#include "app/widgets/panel_parts.h"
#include "core/mend/find/finding.h"

namespace rim::app {
namespace {

constexpr double kLeastMm = 0.01;  // no machine shows less
constexpr std::size_t kMostListed = 200;
constexpr std::size_t kMostMarked = 40;

QTreeWidgetItem* rowOf(const QString& name, const Drawing& drawing) {
  const Counts counts = countsOf(pathsOf(drawing));
  auto* row = new QTreeWidgetItem({name});
  int column = 1;
  for (const std::size_t count : {counts.outlines, counts.nodes, counts.lines, counts.arcs, counts.curves}) {
    row->setText(column, QString::number(count));
    row->setTextAlignment(column++, Qt::AlignRight | Qt::AlignVCenter);
  }
  return row;
}

}  // namespace

ReferenceDialog::ReferenceDialog(Session& session, QWidget* parent) : QDialog(parent), session_(session) {
  setObjectName("references");
  setWindowTitle(tr("Reference copies"));
  resize(560, 420);
  auto* column = new QVBoxLayout(this);
  copies_ = new QTreeWidget;
  copies_->setObjectName("copies");
  copies_->setHeaderLabels(
      {tr("Shown, and its name"), tr("outlines"), tr("nodes"), tr("lines"), tr("arcs"), tr("curves")});
  copies_->setRootIsDecorated(false);
  copies_->header()->setSectionResizeMode(QHeaderView::ResizeToContents);
  copies_->header()->setSectionResizeMode(0, QHeaderView::Stretch);
  copies_->header()->setStretchLastSection(false);
  copies_->setToolTip(tr("The mark shows or hides a copy; F2 or a double click renames it"));
  column->addWidget(copies_, 1);
  text_ = addText(column);
  text_->setObjectName("differenceText");
  places_ = new QListWidget;
  places_->setObjectName("differences");
  places_->setToolTip(tr("A click goes there"));
  column->addWidget(places_, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  auto* keep = buttons->addButton(tr("&Keep the outlines as they are now"), QDialogButtonBox::ActionRole);
  keep->setObjectName("keepCopy");
  drop_ = buttons->addButton(tr("&Drop"), QDialogButtonBox::ActionRole);
  drop_->setObjectName("dropCopy");
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(keep, &QPushButton::clicked, &session_, &Session::keepReference);
  connect(drop_, &QPushButton::clicked, this, &ReferenceDialog::drop);
  connect(copies_, &QTreeWidget::itemChanged, this, &ReferenceDialog::change);
  connect(copies_, &QTreeWidget::currentItemChanged, this, [this] {
    if (!filling_) compare();
  });
  connect(places_, &QListWidget::currentRowChanged, this, [this](int row) {
    if (row >= 0) emit lookedAt(differences_[static_cast<std::size_t>(row)].at);
  });
  connect(&session_, &Session::changed, this, &ReferenceDialog::follow);
}

void ReferenceDialog::show(Unit unit) {
  unit_ = unit;
  QDialog::show();
  follow();
}

void ReferenceDialog::hideEvent(QHideEvent* event) {
  QDialog::hideEvent(event);
  looking_.leave();
  emit marked({});
}

void ReferenceDialog::follow() {
  if (!isVisible()) return;
  fillList();
  compare();
}

int ReferenceDialog::chosen() const { return copies_->indexOfTopLevelItem(copies_->currentItem()) - 1; }

void ReferenceDialog::fillList() {
  filling_ = true;
  const int before = chosen();
  copies_->clear();
  const auto now = job::outlinesOf(session_.shown());
  copies_->addTopLevelItem(rowOf(tr("the outlines now"), now ? *now : Drawing{}));
  copies_->topLevelItem(0)->setFlags(Qt::ItemIsEnabled);
  const std::vector<job::Reference>& references = session_.job().references;
  for (const job::Reference& reference : references) {
    QTreeWidgetItem* row = rowOf(QString::fromStdString(reference.name), *reference.outlines);
    row->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable | Qt::ItemIsEditable);
    row->setCheckState(0, reference.shown ? Qt::Checked : Qt::Unchecked);
    copies_->addTopLevelItem(row);
  }
  const int count = static_cast<int>(references.size());
  // The one that was kept last is the one that is asked about.
  if (count > 0)
    copies_->setCurrentItem(copies_->topLevelItem(1 + (before >= 0 && before < count ? before : count - 1)));
  drop_->setEnabled(count > 0);
  filling_ = false;
}

void ReferenceDialog::change(QTreeWidgetItem* item, int column) {
  const int index = copies_->indexOfTopLevelItem(item) - 1;
  if (filling_ || column != 0 || index < 0) return;
  const bool shown = item->checkState(0) == Qt::Checked;
  const std::string name = item->text(0).trimmed().toStdString();
  // The list is filled anew when that is done, and the row must not go while it tells of its change.
  QMetaObject::invokeMethod(
      this,
      [this, index, shown, name] {
        const auto at = static_cast<std::size_t>(index);
        if (at >= session_.job().references.size()) return;
        session_.edit(tr("Change a reference copy"), {}, [&](job::Job& job) {
          job.references[at].shown = shown;
          if (!name.empty()) job.references[at].name = name;
        });
      },
      Qt::QueuedConnection);
}

void ReferenceDialog::drop() {
  const int index = chosen();
  if (index < 0) return;
  session_.edit(tr("Drop a reference copy"), {},
                [index](job::Job& job) { job.references.erase(job.references.begin() + index); });
}

void ReferenceDialog::compare() {
  const int index = chosen();
  const auto now = session_.upToDate() ? job::outlinesOf(session_.job()) : nullptr;
  places_->clear();
  differences_.clear();
  emit marked({});
  if (index < 0 || !now) {
    looking_.leave();
    text_->setText(index < 0 ? tr("No copy has been kept yet. One shows in grey under the outlines.")
                             : tr("The outlines are being worked out."));
    return;
  }
  text_->setText(tr("Looking for differences…"));
  const auto then = session_.job().references[static_cast<std::size_t>(index)].outlines;
  looking_.begin(
      this,
      [now, then, k = job::mmPerPixel(session_.job())](const std::stop_token& stop) {
        return refine::differencesBetween(*now, *then, k, kLeastMm, stop);
      },
      [this](const Outcome<std::vector<refine::Difference>>& got) {
        if (got.trouble.isEmpty()) {
          tell(got.result);
        } else {
          text_->setText(got.trouble);
        }
      });
}

void ReferenceDialog::tell(const std::vector<refine::Difference>& differences) {
  differences_ = differences;
  const auto size = [this](double mm) { return QString::fromStdString(mend::sizeText(mm, unit_)); };
  if (differences_.empty()) {
    text_->setText(tr("Nowhere do they differ by more than %1.").arg(size(kLeastMm)));
    return;
  }
  text_->setText(counted(differences_.size(), tr("They differ in one place by more than %2; the most is %3."),
                         tr("They differ in %1 places by more than %2; the most is %3."))
                     .arg(size(kLeastMm), size(differences_.front().mm)));
  std::vector<std::pair<Point, QString>> marks;
  for (const refine::Difference& d : differences_) {
    if (static_cast<std::size_t>(places_->count()) == kMostListed) break;
    places_->addItem(d.gone ? tr("%1   a line of the copy that is not there now").arg(size(d.mm)) : size(d.mm));
    if (marks.size() < kMostMarked) marks.emplace_back(d.at, size(d.mm));
  }
  if (differences_.size() > kMostListed)
    text_->setText(text_->text() + " " + tr("The %1 largest are listed.").arg(kMostListed));
  emit marked(marks);
}

}  // namespace rim::app

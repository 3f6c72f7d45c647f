#include "app/steps/refine/handwork_notice.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/widgets/counted.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

std::set<OutlineId> idsOf(const std::vector<OutlineMark>& marks) {
  std::set<OutlineId> ids;
  for (const OutlineMark& mark : marks) ids.insert(mark.id);
  return ids;
}

}  // namespace

HandworkNotice::HandworkNotice(Words words, QWidget* parent) : QWidget(parent), words_(std::move(words)) {
  auto* column = partLayout(this);
  text_ = addText(column);
  text_->setObjectName(words_.name);
  auto* row = new QHBoxLayout;
  column->addLayout(row);
  const auto add = [&](const char* what, const QString& text, const QString& tip) {
    return addButton(row, (words_.name + what).toUtf8().constData(), text, tip);
  };
  connect(add("Look", tr("Look"), tr("Look at the next of them")), &QPushButton::clicked, this, &HandworkNotice::next);
  auto* keep = add("Right", tr("That is right"), tr("All stays as it is, and this is not said of them again"));
  connect(keep, &QPushButton::clicked, this, [this] {
    right_.merge(idsOf(outlines_));
    show({});
  });
  connect(add("LetGo", words_.letGo, words_.whatLetGoDoes), &QPushButton::clicked, this,
          [this] { emit letGoWanted(idsOf(outlines_)); });
  setVisible(false);
}

void HandworkNotice::show(const std::vector<OutlineMark>& outlines) {
  outlines_.clear();
  std::set<OutlineId> told = right_;
  for (const OutlineMark& mark : outlines) {
    if (told.insert(mark.id).second) outlines_.push_back(mark);
  }
  setVisible(!outlines_.empty());
  text_->setText(words_.text.arg(counted(outlines_.size(), tr("1 outline"), tr("%1 outlines"))));
}

void HandworkNotice::next() {
  if (outlines_.empty()) return;
  looked_ = (looked_ + 1) % outlines_.size();
  emit lookedAt(outlines_[looked_].middle);
}

}  // namespace rim::app

#include "app/shelf/label_dialog.h"

#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/widgets/panel_parts.h"

namespace rim::app {

LabelDialog::LabelDialog(const QString& name, const QString& source, QWidget* parent) : QDialog(parent) {
  setWindowTitle(tr("Put on the shelf"));
  setObjectName("labelDialog");
  constexpr int kWidth = 420;
  setMinimumWidth(kWidth);
  auto* column = new QVBoxLayout(this);
  const auto line = [column](const char* objectName, const QString& label, const QString& text, const QString& tip) {
    auto* one = new QLineEdit(text);
    one->setObjectName(objectName);
    addRow(column, label, one, tip);
    return one;
  };
  name_ = line("labelName", tr("&Name"), name, tr("What it is found by"));
  tags_ = line("labelTags", tr("&Tags"), {}, tr("Words to search for, with commas between"));
  source_ = line("labelSource", tr("&Source"), source, tr("Where it came from, and under what permission"));
  QPushButton* keep = addAnswers(this, column, tr("&Put it there"));
  const auto allow = [this, keep] { keep->setEnabled(!name_->text().trimmed().isEmpty()); };
  connect(name_, &QLineEdit::textChanged, this, allow);
  allow();
}

io::ShelfLabel LabelDialog::label() const {
  io::ShelfLabel label{name_->text().trimmed().toStdString(), {}, source_->text().trimmed().toStdString()};
  for (const QString& tag : tags_->text().split(',', Qt::SkipEmptyParts)) {
    if (!tag.trimmed().isEmpty()) label.tags.push_back(tag.trimmed().toStdString());
  }
  return label;
}

}  // namespace rim::app

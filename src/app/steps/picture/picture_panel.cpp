#include "app/steps/picture/picture_panel.h"

#include <QAction>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

/// A button that does what the action does, and follows its state.
QPushButton* buttonFor(QAction* action) {
  auto* button = new QPushButton(action->text());
  button->setToolTip(action->toolTip());
  QObject::connect(button, &QPushButton::clicked, action, &QAction::trigger);
  QObject::connect(action, &QAction::changed, button, [button, action] {
    button->setEnabled(action->isEnabled());
    button->setToolTip(action->toolTip());
  });
  return button;
}

}  // namespace

PicturePanel::PicturePanel(QAction* open, QAction* paste, QWidget* parent) : QWidget(parent) {
  QVBoxLayout* layout = panelLayout(this, tr("Picture"));
  name_ = addHeading(layout, {});
  name_->setTextFormat(Qt::PlainText);
  name_->setWordWrap(true);
  pixels_ = addText(layout);
  resolution_ = addText(layout);
  layout->addSpacing(10);
  layout->addWidget(buttonFor(open));
  layout->addWidget(buttonFor(paste));
  layout->addSpacing(10);
  addText(layout, tr("A picture can also be dropped on the bench. Its file is only read, never changed."));
  layout->addStretch(1);
}

void PicturePanel::show(const Session& session) {
  const Picture& picture = session.job().picture;
  if (picture.empty()) {
    name_->setText(tr("No picture yet"));
    pixels_->clear();
    resolution_->clear();
    return;
  }
  name_->setText(QString::fromStdString(picture.name));
  pixels_->setText(tr("%1, %2 megapixels")
                       .arg(stateLine(session))
                       .arg(picture.width() * static_cast<double>(picture.height()) / 1e6, 0, 'f', 2));
  resolution_->setText(picture.dotsPerInch > 0
                           ? tr("The file says %1 dots per inch.").arg(picture.dotsPerInch, 0, 'f', 0)
                           : tr("The file names no resolution; %1 dots per inch are taken until you set a size below.")
                                 .arg(kDefaultDotsPerInch));
}

QString PicturePanel::stateLine(const Session& session) {
  const Picture& picture = session.job().picture;
  if (picture.empty()) return tr("none yet");
  return tr("%1 × %2 px").arg(picture.width()).arg(picture.height());
}

}  // namespace rim::app

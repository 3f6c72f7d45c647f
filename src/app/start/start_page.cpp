#include "app/start/start_page.h"

#include <QAction>
#include <QDragEnterEvent>
#include <QFile>
#include <QFileInfo>
#include <QGridLayout>
#include <QLabel>
#include <QMimeData>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>

#include "app/start/thumbnails.h"
#include "app/widgets/panel_parts.h"
#include "core/io/read_drawing.h"

namespace rim::app {
namespace {

constexpr int kColumns = 5;
constexpr int kMostRecent = 5;
constexpr int kTileWidth = kThumbnailSize.width() + 24;

/// A demo's thumbnail from what ships inside the application.
QImage demoThumbnail(const QString& name) {
  QFile file(":/demo/" + name);
  if (!file.open(QIODevice::ReadOnly)) return {};
  const QByteArray bytes = file.readAll();
  if (name.endsWith(".dxf") || name.endsWith(".svg")) {
    try {
      return thumbnailOf(
          job::jobOn(io::readDrawing(bytes.toStdString(), name.toStdString()).drawing, name.toStdString()));
    } catch (const std::exception&) {
      return {};  // the tile then shows its title alone
    }
  }
  return QImage::fromData(bytes).scaled(kThumbnailSize, Qt::KeepAspectRatio, Qt::SmoothTransformation);
}

/// A thumbnail over its title, to be pressed.
QToolButton* tile(const QImage& thumbnail, const QString& title, const QString& tip) {
  auto* button = new QToolButton;
  button->setProperty("role", "tile");
  button->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
  button->setIconSize(kThumbnailSize);
  button->setFixedWidth(kTileWidth);
  button->setIcon(QIcon(QPixmap::fromImage(thumbnail)));
  // A title may hold an ampersand, which a button would take for a mnemonic.
  const QString shown = button->fontMetrics().elidedText(title, Qt::ElideMiddle, kTileWidth - 16);
  button->setText(QString(shown).replace('&', "&&"));
  button->setToolTip(tip);
  button->setAccessibleName(title);
  button->setFocusPolicy(Qt::StrongFocus);
  return button;
}

}  // namespace

StartPage::StartPage(const QList<QAction*>& ways, const QList<Demo>& demos, QWidget* parent) : QWidget(parent) {
  setObjectName("startPage");
  setAccessibleName(tr("Start"));
  setAcceptDrops(true);
  column_ = new QVBoxLayout(this);
  column_->setContentsMargins(48, 28, 48, 24);
  column_->setSpacing(10);
  auto* title = new QLabel(tr("What is to be cut?"));
  title->setProperty("role", "title");
  column_->addWidget(title);
  addText(column_,
          tr("A picture, a photo or scan of a drawing, an SVG or DXF, or a job that was saved. Drop it anywhere in "
             "this window, or:"));
  auto* row = new QHBoxLayout;
  QPushButton* first = buttonFor(ways.first());
  first->setProperty("role", "main");
  first->setObjectName("startOpen");
  row->addWidget(first);
  for (QAction* way : ways.mid(1)) row->addWidget(buttonFor(way));
  row->addStretch(1);
  column_->addLayout(row);
  setFocusProxy(first);

  leftPart_ = new QWidget;
  leftPart_->setObjectName("leftWork");
  partLayout(leftPart_);
  leftPart_->hide();
  column_->addWidget(leftPart_);

  recentHeading_ = addHeading(column_, tr("Opened before"));
  noRecent_ = addText(column_, tr("Nothing yet. What you open will be here the next time."));
  recent_ = new QGridLayout;
  recent_->setHorizontalSpacing(10);
  recent_->setColumnStretch(kColumns, 1);
  column_->addLayout(recent_);

  addHeading(column_, tr("To try it with"));
  auto* tiles = new QGridLayout;
  tiles->setHorizontalSpacing(10);
  tiles->setColumnStretch(kColumns, 1);
  for (int i = 0; i < demos.size(); ++i) {
    QToolButton* button = tile(demoThumbnail(demos[i].file), demos[i].title, tr("Opens a copy of this demo"));
    button->setObjectName("demo:" + demos[i].file);
    connect(button, &QToolButton::clicked, this, [this, name = demos[i].file] { emit demoChosen(name); });
    tiles->addWidget(button, i / kColumns, i % kColumns);
  }
  column_->addLayout(tiles);
  column_->addStretch(1);
}

void StartPage::showRecent(const QStringList& files) {
  while (QLayoutItem* item = recent_->takeAt(0)) {
    delete item->widget();
    delete item;
  }
  int count = 0;
  for (const QString& file : files) {
    if (count == kMostRecent || !QFileInfo::exists(file)) continue;
    QToolButton* button = tile(savedThumbnail(file), QFileInfo(file).fileName(), file);
    button->setObjectName("recent:" + QFileInfo(file).fileName());
    connect(button, &QToolButton::clicked, this, [this, file] { emit fileChosen(file); });
    recent_->addWidget(button, 0, count++);
  }
  noRecent_->setVisible(count == 0);
}

void StartPage::showLeft(const QList<LeftWork>& works) {
  auto* column = static_cast<QVBoxLayout*>(leftPart_->layout());
  qDeleteAll(leftPart_->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly));
  leftPart_->setVisible(!works.isEmpty());
  if (works.isEmpty()) return;
  addHeading(column, tr("Not saved when it ended"));
  constexpr qsizetype kMostShown = 4;
  for (const LeftWork& work : works.mid(0, kMostShown)) {
    auto* line = new QWidget;
    auto* row = new QHBoxLayout(line);
    row->setContentsMargins(0, 0, 0, 0);
    auto* bring = new QPushButton(tr("&Go on with it"));
    bring->setProperty("role", "main");
    bring->setObjectName("bringBack");
    bring->setToolTip(tr("As it was a moment before it ended"));
    auto* drop = new QPushButton(tr("&Let it go"));
    drop->setObjectName("letGo");
    row->addWidget(bring);
    row->addWidget(drop);
    auto* what =
        new QLabel(tr("%1, changed last %2").arg(work.name, QLocale().toString(work.at, QLocale::ShortFormat)));
    what->setTextFormat(Qt::PlainText);
    row->addWidget(what);
    row->addStretch(1);
    column->addWidget(line);
    connect(bring, &QPushButton::clicked, this, [this, work] { emit broughtBack(work); });
    connect(drop, &QPushButton::clicked, this, [this, work] { emit letGo(work); });
  }
}

void StartPage::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls() || event->mimeData()->hasImage()) event->acceptProposedAction();
}

void StartPage::dropEvent(QDropEvent* event) {
  event->acceptProposedAction();
  emit dropped(event->mimeData());
}

}  // namespace rim::app

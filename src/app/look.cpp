#include "app/look.h"

#include <QApplication>
#include <QFile>
#include <QFontDatabase>
#include <QStyleFactory>

namespace rim::app {
namespace {

constexpr int kPointSize = 10;

Look lightLook() {
  Look l;
  l.window = QColor(0xe9e6df);
  l.panel = QColor(0xf6f4ef);
  l.raised = QColor(0xffffff);
  l.line = QColor(0xcfc9bc);
  l.text = QColor(0x23272b);
  l.quiet = QColor(0x645f56);
  l.accent = QColor(0x1d5c57);
  l.onAccent = QColor(0xffffff);
  l.good = QColor(0x1d6b50);
  l.warning = QColor(0x9a4a00);
  l.bench = QColor(0xd7d3c8);
  l.sheet = QColor(0xffffff);
  l.sheetEdge = QColor(0xa39c8d);
  l.border = QColor(0x00695c);
  l.hole = QColor(0xb85c00);
  l.open = QColor(0x7a2f8f);
  l.fill = QColor(0, 137, 118, 62);
  l.node = QColor(0x23272b);
  return l;
}

Look darkLook() {
  Look l;
  l.dark = true;
  l.window = QColor(0x202427);
  l.panel = QColor(0x292e32);
  l.raised = QColor(0x343a3f);
  l.line = QColor(0x454c52);
  l.text = QColor(0xeceae4);
  l.quiet = QColor(0xa9aaa5);
  l.accent = QColor(0x58b3a3);
  l.onAccent = QColor(0x10201e);
  l.good = QColor(0x6cc5a1);
  l.warning = QColor(0xf0a860);
  l.bench = QColor(0x17191b);
  l.sheet = QColor(0xffffff);
  l.sheetEdge = QColor(0x50565b);
  l.border = QColor(0x00695c);
  l.hole = QColor(0xb85c00);
  l.open = QColor(0x7a2f8f);
  l.fill = QColor(0, 137, 118, 62);
  l.node = QColor(0x23272b);
  return l;
}

Look current = lightLook();

QPalette paletteOf(const Look& l) {
  QPalette p;
  p.setColor(QPalette::Window, l.window);
  p.setColor(QPalette::WindowText, l.text);
  p.setColor(QPalette::Base, l.raised);
  p.setColor(QPalette::AlternateBase, l.panel);
  p.setColor(QPalette::Text, l.text);
  p.setColor(QPalette::PlaceholderText, l.quiet);
  p.setColor(QPalette::Button, l.panel);
  p.setColor(QPalette::ButtonText, l.text);
  p.setColor(QPalette::Highlight, l.accent);
  p.setColor(QPalette::HighlightedText, l.onAccent);
  p.setColor(QPalette::ToolTipBase, l.text);
  p.setColor(QPalette::ToolTipText, l.window);
  p.setColor(QPalette::Link, l.accent);
  p.setColor(QPalette::Mid, l.line);
  for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText}) {
    p.setColor(QPalette::Disabled, role, l.quiet);
  }
  return p;
}

/// The style sheet with its @names replaced by the look's colours.
QString styleSheetOf(const Look& l) {
  QFile file(":/style.qss");
  if (!file.open(QIODevice::ReadOnly)) return {};
  QString sheet = QString::fromUtf8(file.readAll());
  const std::pair<const char*, QColor> names[] = {
      {"@window", l.window}, {"@panel", l.panel},     {"@raised", l.raised}, {"@line", l.line},
      {"@text", l.text},     {"@quiet", l.quiet},     {"@accent", l.accent}, {"@onAccent", l.onAccent},
      {"@good", l.good},     {"@warning", l.warning}, {"@bench", l.bench}};
  for (const auto& [name, colour] : names) sheet.replace(QString(name) + ";", colour.name() + ";");
  return sheet;
}

bool desktopIsDark(const QPalette& desktop) {
  return desktop.color(QPalette::WindowText).lightness() > desktop.color(QPalette::Window).lightness();
}

void loadFonts() {
  for (const char* file : {"Karla-Regular.otf", "Karla-Medium.otf", "Karla-Bold.otf"}) {
    QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/") + file);
  }
}

}  // namespace

const Look& look() { return current; }

void applyLook(QApplication& application, Appearance appearance) {
  static const bool desktopDark = [] {
    loadFonts();
    return desktopIsDark(QGuiApplication::palette());
  }();
  const bool dark = appearance == Appearance::Dark || (appearance == Appearance::System && desktopDark);
  current = dark ? darkLook() : lightLook();
  QApplication::setStyle(QStyleFactory::create("Fusion"));
  QApplication::setPalette(paletteOf(current));
  QApplication::setFont(fontLike(0));
  application.setStyleSheet(styleSheetOf(current));
}

QFont fontLike(int step, QFont::Weight weight) {
  QFont font("Karla", kPointSize + step);
  font.setWeight(weight);
  return font;
}

}  // namespace rim::app

#include <QDirIterator>
#include <QFile>
#include <QHash>
#include <QRegularExpression>
#include <QTest>

#include "support/test_list.h"

/// Dependencies point one way. A room may include itself and what stands at its left.
static const QStringList kRooms{"geometry", "drawing", "picture", "colour", "trace", "mend",
                                "refine",   "sketch",  "plan",    "job",    "io"};

/// Inside a room the same holds of its own rooms; what lies in none of them comes last, save its settings.
static const QHash<QString, QStringList> kInnerRooms{
    {"trace", {"settings", "tracing", "fit", "contour", "split", "outline", "lines", "inks", ""}},
    {"mend", {"find", "step", "repair", ""}},
    {"io", {"common", "svg", "dxf", "print", "", "job"}}};

namespace {

/// The room of a file below src/: "geometry", ..., "cli", "app", or "" for what every room may use (core/error.h).
QString roomOf(const QString& path) {
  const QStringList parts = path.split('/');
  if (parts.value(0) != "core") return parts.value(0);
  return parts.size() == 2 ? "" : parts[1];
}

/// The place of a file in the order of its room's own rooms; -1: there are none.
int innerPlaceOf(const QString& path) {
  const QStringList parts = path.split('/');
  const QStringList inner = kInnerRooms.value(parts.value(1));
  if (inner.isEmpty()) return -1;
  const QString name = parts.last().section('.', 0, 0);
  return static_cast<int>(inner.indexOf(parts.size() > 3 ? parts[2] : inner.contains(name) ? name : ""));
}

/// The step of the window whose folder a file lies in; empty: none.
QString stepOf(const QString& path) {
  const QStringList parts = path.split('/');
  return parts.value(0) == "app" && parts.value(1) == "steps" && parts.size() > 3 ? parts[2] : QString();
}

/// Whether a file of the window may look into the folder of a step: that step's own, the list of them, and the
/// demonstration, which does what a person does.
bool knowsSteps(const QString& file) { return file == "app/steps/rooms.cpp" || file.startsWith("app/demo_"); }

/// The namespace that a folder of the core has: that of its room, and in the rooms of `trace` one for each. What lies
/// in `geometry`, in `drawing` and beside the rooms are the words of all of them.
QString namespaceOf(const QString& file) {
  const QStringList parts = file.split('/');
  if (parts.size() == 2 || parts[1] == "geometry" || parts[1] == "drawing") return "rim";
  const bool ownRooms = parts[1] == "trace" || (parts[1] == "io" && (parts[2] == "svg" || parts[2] == "dxf"));
  return "rim::" + parts[1] + (ownRooms && parts.size() > 3 ? "::" + parts[2] : QString());
}

/// Why this include must not stand in this file; empty when it may.
QString fault(const QString& file, const QString& included) {
  const QString from = roomOf(file);
  const bool own = included.startsWith("core/") || included.startsWith("cli/") || included.startsWith("app/");
  const bool core = file.startsWith("core/");
  if (core && !own) {
    static const QRegularExpression qt("^(Q[A-Z]|Qt)");
    return qt.match(included).hasMatch() ? "the core knows no Qt" : "";
  }
  if (!own) return {};
  const QString to = roomOf(included);
  if (core && !included.startsWith("core/")) return "the core knows no interface";
  if (core && kRooms.indexOf(to) > kRooms.indexOf(from) && !from.isEmpty()) return "the arrow points backwards";
  if (core && from == to && innerPlaceOf(included) > innerPlaceOf(file))
    return "the arrow points backwards in its room";
  if (core && from.isEmpty() && !to.isEmpty()) return "what all rooms use may use none of them";
  if (!stepOf(included).isEmpty() && stepOf(included) != stepOf(file) && !knowsSteps(file))
    return "no step knows another one's inside";
  if ((from == "cli" && to == "app") || (from == "app" && to == "cli"))
    return "command line and window know nothing of each other";
  return {};
}

}  // namespace

class TestLayers : public QObject {
  Q_OBJECT

 private slots:
  void everyIncludeFollowsTheArrows() {
    const QString root = QStringLiteral(SOURCE_FOLDER) + "/src/";
    static const QRegularExpression include("^#include [<\"]([^>\"]+)[>\"]");
    QStringList faults;
    int files = 0;
    QDirIterator it(root, {"*.h", "*.cpp"}, QDir::Files, QDirIterator::Subdirectories);
    while (it.hasNext()) {
      QFile file(it.next());
      QVERIFY(file.open(QIODevice::ReadOnly));
      ++files;
      const QString name = file.fileName().mid(root.size());
      for (const QString& line : QString::fromUtf8(file.readAll()).split('\n')) {
        const auto match = include.match(line);
        if (!match.hasMatch()) continue;
        const QString why = fault(name, match.captured(1));
        if (!why.isEmpty()) faults << name + " includes " + match.captured(1) + ": " + why;
      }
    }
    QVERIFY(files > 50);
    QVERIFY2(faults.isEmpty(), qPrintable(faults.join("\n")));
  }

  void everyRoomHasItsNamespace() {
    const QString root = QStringLiteral(SOURCE_FOLDER) + "/src/";
    static const QRegularExpression opened("^namespace (rim[\\w:]*) \\{");
    QStringList faults;
    QDirIterator it(root + "core", {"*.h", "*.cpp"}, QDir::Files, QDirIterator::Subdirectories);
    while (it.hasNext()) {
      QFile file(it.next());
      QVERIFY(file.open(QIODevice::ReadOnly));
      const QString name = file.fileName().mid(root.size());
      for (const QString& line : QString::fromUtf8(file.readAll()).split('\n')) {
        const auto match = opened.match(line);
        if (match.hasMatch() && match.captured(1) != namespaceOf(name)) faults << name + " opens " + match.captured(1);
      }
    }
    QVERIFY2(faults.isEmpty(), qPrintable(faults.join("\n")));
  }

  /// Two types of one name in one namespace break C++'s one definition rule, and no compiler tells.
  void everyTypeHasANameOfItsOwn() {
    const QString root = QStringLiteral(SOURCE_FOLDER) + "/src/";
    static const QRegularExpression type("^(?:struct|class) ([A-Z]\\w*)\\b(?!::)[^;]*\\{");
    QHash<QString, QString> seen;
    QStringList faults;
    QDirIterator it(root, {"*.h", "*.cpp"}, QDir::Files, QDirIterator::Subdirectories);
    while (it.hasNext()) {
      QFile file(it.next());
      QVERIFY(file.open(QIODevice::ReadOnly));
      const QString name = file.fileName().mid(root.size());
      const QString space = name.startsWith("app/") ? "app" : name.startsWith("cli/") ? "cli" : "core";
      bool ownToTheFile = false;
      for (const QString& line : QString::fromUtf8(file.readAll()).split('\n')) {
        if (line.startsWith("namespace {")) ownToTheFile = true;
        if (line.startsWith("}  // namespace") && !line.contains("rim")) ownToTheFile = false;
        const auto match = type.match(line);
        if (!match.hasMatch() || ownToTheFile) continue;
        const QString key = space + "::" + match.captured(1);
        if (seen.contains(key)) faults << key + " stands in " + seen[key] + " and in " + name;
        seen[key] = name;
      }
    }
    QVERIFY(seen.size() > 80);
    QVERIFY2(faults.isEmpty(), qPrintable(faults.join("\n")));
  }

  void theCheckItselfSeesFaults() {
    QVERIFY(!fault("core/geometry/path.h", "QPointF").isEmpty());
    QVERIFY(!fault("core/geometry/path.h", "QtGui/QColor").isEmpty());
    QVERIFY(!fault("core/geometry/path.h", "core/trace/contour/border.h").isEmpty());
    QVERIFY(!fault("core/trace/trace.h", "core/io/export.h").isEmpty());
    QVERIFY(!fault("core/io/export.h", "app/session.h").isEmpty());
    QVERIFY(!fault("core/error.h", "core/job/job.h").isEmpty());
    QVERIFY(fault("core/trace/trace.h", "core/picture/tone.h").isEmpty());
    QVERIFY(fault("core/io/export.h", "core/job/job.h").isEmpty());
    QVERIFY(fault("app/session.h", "QObject").isEmpty());
    QVERIFY(!fault("app/steps/mend/mend_room.cpp", "app/steps/refine/refine_panel.h").isEmpty());
    QVERIFY(!fault("app/main_window.cpp", "app/steps/mend/mend_room.h").isEmpty());
    QVERIFY(!fault("app/bench/bench.cpp", "app/steps/mend/speck_layer.h").isEmpty());
    QVERIFY(fault("app/steps/mend/mend_room.cpp", "app/steps/rooms.h").isEmpty());
    QVERIFY(fault("app/steps/refine/refine_room.cpp", "app/steps/refine/hand/handwork.h").isEmpty());
  }
};

RIM_TEST(TestLayers)
#include "tst_layers.moc"

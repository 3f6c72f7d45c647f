// The middles of pen strokes beside the skeletons that OpenCV's thinning (Z. Guo and R. W. Hall, and T. Y. Zhang and
// C. Y. Suen, as cv::ximgproc has them) and scikit-image's skeletonize make: as many connected parts and loops, on
// twenty drawings; and as many free ends as were drawn.

#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>

#include "support/test_list.h"

class TestStrokesOutside : public QObject {
  Q_OBJECT

 private slots:
  void linesHangTogetherAsSkeletonsDo() {
    QTemporaryDir folder;
    QProcess python;
    python.start("/usr/bin/python3",
                 {QStringLiteral(SOURCE_FOLDER "/tests/outside/strokes_outside.py"), CLI_PROGRAM, folder.path()});
    QVERIFY(python.waitForFinished(240'000));
    const QByteArray errors = python.readAllStandardError();
    QVERIFY2(python.exitCode() == 0, errors.constData());
    const QJsonArray drawings = QJsonDocument::fromJson(python.readAllStandardOutput()).array();
    QCOMPARE(drawings.size(), 20);
    int loops = 0;
    for (const QJsonValue& value : drawings) {
      const QJsonObject drawing = value.toObject();
      QCOMPARE(drawing["ours"].toArray(), drawing["opencv"].toArray());
      QCOMPARE(drawing["ours"].toArray(), drawing["skimage"].toArray());
      QCOMPARE(drawing["ends"].toInt(), drawing["drawn"].toInt());
      loops += drawing["ours"].toArray()[1].toInt();
    }
    QVERIFY2(loops > 20, "there is something to compare");
  }
};

RIM_TEST(TestStrokesOutside)
#include "tst_strokes_outside.moc"

